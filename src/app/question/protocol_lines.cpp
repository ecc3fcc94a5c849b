// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/protocol_lines.h"

#include "app/say.h"
#include "app/session/amount_text.h"
#include "app/session/qtext.h"
#include "app/session/step_title.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"

namespace ibuki {
namespace {

QString minutesText(double minutes) {
    return minutes < 10 ? say("%1 min").arg(minutes, 0, 'g', 2) : durationText(minutes);
}

QString fromText(ExpectedFrom from) {
    switch (from) {
    case ExpectedFrom::learned:
        return say("learned from its runs");
    case ExpectedFrom::stated:
        return say("stated on the bench sheet");
    case ExpectedFrom::typical:
        return say("usual for an air cooler");
    }
    return {};
}

} // namespace

QString gateText(GateKind gate, double figure) {
    switch (gate) {
    case GateKind::chipSlopeBelow:
        return say("%1 K/min").arg(figure, 0, 'g', 2);
    case GateKind::remainingBelow:
        return say("%1 K left").arg(figure, 0, 'g', 2);
    case GateKind::aboveIdleBelow:
        return say("%1 K above idle").arg(figure, 0, 'g', 2);
    case GateKind::chipAbove:
    case GateKind::chipBelow:
        return say("%1 °C").arg(figure, 0, 'f', 0);
    case GateKind::none:
    case GateKind::ambientSlopeBelow:
        return {};
    }
    return {};
}

QString stepForecast(const StepOccurrence& of, const StepForecast& step) {
    const double minutes = step.to - step.from;
    QStringList words{say("%1: %2 at %3 W, then %4 K over the room")
                          .arg(stepTitle(of), minutesText(minutes))
                          .arg(step.powerW, 0, 'f', 0)
                          .arg(step.riseK, 0, 'f', 1)};
    if (of.gate == GateKind::ambientSlopeBelow)
        words << say("its gate waits for the room, which cannot be foretold");
    else if (step.opensAt && *step.opensAt <= step.to)
        words << say("its gate (%1) should open after %2")
                     .arg(gateText(of.gate, of.gateValue), minutesText(*step.opensAt - step.from));
    else if (step.opensAt)
        words << say("its gate (%1) should open only after %2: longer than the step")
                     .arg(gateText(of.gate, of.gateValue), minutesText(*step.opensAt - step.from));
    else if (step.atEnd)
        words
            << say("its gate (%1) is not expected to open within a day").arg(gateText(of.gate, of.gateValue));
    if (of.kind == StepKind::soak)
        words << say("predicted remaining rise at its end: %1 K").arg(std::abs(step.leftK), 0, 'g', 2);
    return words.join("; ") + ".";
}

QString benchForecast(const ExpectedBench& bench) {
    return say("Expected with %1 K/W (%2) and a slowest part of %3 (%4).")
        .arg(bench.kPerW, 0, 'f', 3)
        .arg(fromText(bench.kPerWFrom), minutesText(bench.slowestMinutes), fromText(bench.slowestFrom));
}

} // namespace ibuki
