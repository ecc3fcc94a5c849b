// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/hand_time_lines.h"

#include "app/say.h"
#include "app/session/qtext.h"
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/plan/step_times.h"
#include "core/setup/plan_setup.h"
#include "store/calendar/plan_calendar.h"

#include <set>

namespace ibuki {
namespace {

constexpr std::array manualWork{StepKind::remove, StepKind::clean, StepKind::apply};

QString sourceText(TimeSource source) {
    switch (source) {
    case TimeSource::typical:
        return say("usual");
    case TimeSource::protocol:
        return say("protocol");
    case TimeSource::stated:
        return say("stated");
    case TimeSource::learned:
        return say("learned");
    }
    return {};
}

} // namespace

std::vector<HandTimeLine> handTimeLines(const Document& document, const Question& question, Id<Bench> bench) {
    std::set<MaterialClass> classes;
    for (const Material* material : levelMaterials(document, question)) classes.insert(material->kind);
    if (classes.empty()) classes.insert(MaterialClass::paste);
    std::vector<HandTimeLine> lines;
    for (MaterialClass kind : classes)
        for (StepKind step : manualWork) {
            const StepOccurrence timed = handStep(document, bench, step, kind);
            lines.push_back({kind, step, sayTerm(word(kind)) + ", " + sayTerm(word(step)),
                             QString::number(timed.minutes, 'f', 0), sourceText(timed.source)});
        }
    return lines;
}

QString turnaroundText(const Document& document, Id<Bench> bench) {
    const auto learned = learnedTurnaround(document, bench);
    if (!learned) return say("Learned from the recordings once three followed each other on one evening.");
    return say("From one recording to the next it took %1 min here (median of %2).")
        .arg(learned->minutes, 0, 'f', 0)
        .arg(learned->count);
}

} // namespace ibuki
