// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/evening_lines.h"

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

constexpr std::array hands{StepKind::remove, StepKind::clean, StepKind::apply};

QString sourceText(TimeSource source) {
    switch (source) {
    case TimeSource::usual:
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

QString clockText(Instant at) { return qtext(dateTimeText(at).substr(11)); }

QStringList mountNames(const Design& design, const std::vector<OrderedMount>& order) {
    QStringList names;
    for (const OrderedMount& mount : order)
        names << (mount.level ? qtext(design.cells.at(*mount.level).name) : say("check mount"));
    return names;
}

QStringList eveningTexts(const Schedule& plan, const QStringList& names) {
    QStringList texts;
    for (std::size_t e = 0; e < plan.evenings.size(); ++e) {
        const Evening& evening = plan.evenings[e];
        QStringList mounts;
        for (std::size_t i = 0; i < plan.mounts.size(); ++i)
            if (plan.mounts[i].evening == static_cast<int>(e) + 1)
                mounts << QString("%1 %2").arg(clockText(plan.mounts[i].start), names[static_cast<int>(i)]);
        texts << say("%1 %2   %3 min of hands\n%4")
                     .arg(sayTerm(weekdayText(evening.start)), qtext(dateText(evening.start)))
                     .arg(evening.handsMinutes, 0, 'f', 0)
                     .arg(mounts.isEmpty() ? say("goes on with the mount before") : mounts.join("   "));
    }
    if (!plan.overlong.empty())
        texts << sayMany("{count} mount needs more hands than an evening has: lengthen the evening.",
                         "{count} mounts need more hands than an evening has: lengthen the evening.",
                         static_cast<qint64>(plan.overlong.size()));
    return texts;
}

void tellTape(EveningLines& told, const Document& document, const TapeEvenings& tape) {
    QStringList names = mountNames(tape.design, tape.order);
    for (std::size_t i = 0; i < tape.slotIds.size(); ++i) {
        const Slot& slot = *document.find(tape.slotIds[i]);
        if (slot.kind == SlotKind::baseline) names[static_cast<int>(i)] = say("as it stands");
        if (slot.plannedFor != tape.schedule.mounts[i].start) told.canBeDatedAnew = true;
    }
    told.title = told.canBeDatedAnew ? say("Evenings of what is on the tape, if dated anew")
                                     : say("Evenings of what is on the tape");
    told.evenings = eveningTexts(tape.schedule, names);
}

QString laterText(const Document& document, Id<Study> study) {
    QStringList due;
    for (const CalendarEvent& event : planEvents(document, study))
        if (event.uid.starts_with("later"))
            due << QString("%1  %2").arg(qtext(dateTimeText(event.start)), qtext(event.summary));
    return due.isEmpty() ? QString() : say("%1 to come back to, first: %2").arg(due.size()).arg(due.front());
}

} // namespace

EveningLines eveningLines(const Document& document, const Question& question, const PlanFigures& figures,
                          Instant now) {
    EveningLines told;
    if (!figures.analysis) {
        told.evenings << figures.whyNot;
        return told;
    }
    try {
        const Question* first = firstQuestion(document, question.study);
        if (first && !plannedSlots(document, question.study).empty()) {
            tellTape(told, document, eveningsOfTape(document, *first, figures.plan, now, figures.clock));
        } else {
            told.title = say("Evenings, if it is done in the order drawn");
            told.evenings = eveningTexts(figures.analysis->schedule,
                                         mountNames(figures.analysis->design, figures.analysis->toCome));
        }
        told.later = laterText(document, question.study);
    } catch (const InputError& error) {
        told.evenings << saySentence(error);
    }
    return told;
}

std::vector<HandTimeLine> handTimeLines(const Document& document, const Question& question, Id<Bench> bench) {
    std::set<MaterialClass> classes;
    for (const Material* material : levelMaterials(document, question)) classes.insert(material->kind);
    if (classes.empty()) classes.insert(MaterialClass::paste);
    std::vector<HandTimeLine> lines;
    for (MaterialClass kind : classes)
        for (StepKind step : hands) {
            const TimedStep timed = handStep(document, bench, step, kind);
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
