// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/step_occurrence.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace ibuki {
namespace {

bool isPerLoad(const ProtocolStep& step) {
    return step.kind == StepKind::soak || step.kind == StepKind::measure;
}

/// A step of one load stands in the place of the general one.
bool countsFor(const std::vector<ProtocolStep>& protocol, const ProtocolStep& step, const Load* load) {
    if (!load) return true;
    if (step.load) return step.load == load->id;
    return std::none_of(protocol.begin(), protocol.end(), [&](const ProtocolStep& other) {
        return other.kind == step.kind && other.load == load->id;
    });
}

StepOccurrence occurrenceOf(const ProtocolStep& step, std::size_t row, const Load* load,
                            double slowestMinutes) {
    StepOccurrence made;
    made.kind = step.kind;
    made.row = row;
    made.minutes = step.minutes;
    made.gate = step.gate;
    made.gateValue = step.gateValue;
    made.unattended = step.unattended;
    if (load) made.load = load->name;
    if (load && load->target) made.powerW = load->target->value;
    if (step.kind == StepKind::soak) {
        made.minutes = std::max(step.minutes, soakMinutes(slowestMinutes));
        if (step.gate != GateKind::none) made.leastMinutes = slowestMinutes;
    }
    return made;
}

} // namespace

double soakMinutes(double slowestMinutes, double riseK, double withinK) {
    return slowestMinutes * std::log(riseK / withinK);
}

std::vector<StepOccurrence> occurrencesOf(const std::vector<ProtocolStep>& protocol,
                                          const std::vector<const Load*>& loads, double slowestMinutes,
                                          StepKind from) {
    const std::vector<const Load*> eachOrNone = loads.empty() ? std::vector<const Load*>{nullptr} : loads;
    std::vector<StepOccurrence> steps;
    const auto add = [&](std::size_t row, const Load* load) {
        steps.push_back(occurrenceOf(protocol[row], row, load, slowestMinutes));
    };
    bool loadsDone = false;
    for (std::size_t row = 0; row < protocol.size(); ++row) {
        if (protocol[row].kind < from) continue;
        if (!isPerLoad(protocol[row])) {
            add(row, protocol[row].kind == StepKind::condition ? eachOrNone.back() : nullptr);
        } else if (!std::exchange(loadsDone, true)) {
            for (const Load* load : eachOrNone)
                for (std::size_t each = 0; each < protocol.size(); ++each)
                    if (isPerLoad(protocol[each]) && countsFor(protocol, protocol[each], load))
                        add(each, load);
        }
    }
    return steps;
}

Message lastsMessage(double minutes, GateKind gate, double gateValue) {
    const auto code = [&] {
        switch (gate) {
        case GateKind::none:
            return "step-lasts";
        case GateKind::chipSlopeBelow:
            return "step-lasts.chip-slope";
        case GateKind::ambientSlopeBelow:
            return "step-lasts.room-slope";
        case GateKind::remainingBelow:
            return "step-lasts.remaining";
        case GateKind::aboveIdleBelow:
            return "step-lasts.above-idle";
        case GateKind::chipAbove:
            return "step-lasts.chip-above";
        case GateKind::chipBelow:
            return "step-lasts.chip-below";
        }
        return "step-lasts";
    };
    return {code(), {{"minutes", minutes}, {"limit", gateValue}}};
}

} // namespace ibuki
