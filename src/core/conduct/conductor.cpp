// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/conductor.h"

#include "core/plan/step_times.h"

#include <algorithm>

namespace ibuki {

std::vector<ConductedStep> conductedSteps(const std::vector<ProtocolStep>& protocol,
                                          const std::vector<const Load*>& loads) {
    const Load* last = loads.empty() ? nullptr : loads.back();
    std::vector<ConductedStep> steps;
    for (const auto& [row, load] : runOrder(protocol, loads, StepKind::condition)) {
        const ProtocolStep& step = protocol[row];
        const bool underLoad =
            step.kind == StepKind::soak || step.kind == StepKind::measure || step.kind == StepKind::condition;
        const Load* of = load ? load : underLoad ? last : nullptr;
        ConductedStep made{step.kind,     of ? of->name : std::string(), {}, step.minutes, step.gate,
                           step.gateValue};
        if (underLoad && of && of->target) made.powerW = of->target->value;
        steps.push_back(std::move(made));
    }
    return steps;
}

Conductor::Conductor(std::vector<ConductedStep> steps) : steps_(std::move(steps)) {}

std::optional<double> Conductor::wantedW() const {
    return begun_ && !finished() ? steps_[at_].powerW : std::nullopt;
}

std::optional<GateReading> Conductor::gate() const {
    return watch_ ? std::optional(watch_->reading()) : std::nullopt;
}

void Conductor::begin(double timeS, std::vector<StepEvent>& events) {
    const ConductedStep& step = steps_[at_];
    begun_ = true;
    beganS_ = timeS;
    watch_.reset();
    if (step.gate != GateKind::none) watch_.emplace(step.gate, step.gateValue, idleC_);
    events.push_back({at_, StepState::begun, timeS, 60 * step.minutes});
}

void Conductor::end(StepState state, double timeS, std::vector<StepEvent>& events) {
    if (steps_[at_].load.empty() && state != StepState::skipped)
        if (const auto mean = recentMean(idle_, timeS); mean && steps_[at_].kind == StepKind::idle)
            idleC_ = mean;
    events.push_back({at_, state, timeS, {}});
    ++at_;
    begun_ = false;
    watch_.reset();
    idle_.clear();
}

std::vector<StepEvent> Conductor::take(const GateSample& sample) {
    std::vector<StepEvent> events;
    if (finished()) return events;
    if (!begun_) begin(sample.timeS, events);
    if (steps_[at_].load.empty()) {
        idle_.push_back(sample);
        while (idle_.front().timeS < sample.timeS - 60) idle_.pop_front();
    }
    const bool over = sample.timeS - beganS_ >= 60 * steps_[at_].minutes - 1e-9;
    if (watch_) watch_->take(sample);
    if (watch_ && watch_->reading().open)
        end(StepState::done, sample.timeS, events);
    else if (over)
        end(watch_ ? StepState::timedOut : StepState::done, sample.timeS, events);
    if (!finished() && !begun_) begin(sample.timeS, events);
    return events;
}

std::vector<StepEvent> Conductor::skip(double timeS) {
    std::vector<StepEvent> events;
    if (finished()) return events;
    if (!begun_) begin(timeS, events);
    end(StepState::skipped, timeS, events);
    if (!finished()) begin(timeS, events);
    return events;
}

} // namespace ibuki
