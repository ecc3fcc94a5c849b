// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/conductor.h"

#include "core/reduce/settings.h"

#include <algorithm>
#include <array>

namespace ibuki {
namespace {

constexpr double longestCoolMinutes = 60; ///< of a cycle of conditioning
constexpr double promptS = 10;            ///< a load that is seen so soon began with its step

/// Heats to one temperature and lets cool to the other, again and again.
void addCycles(std::vector<StepOccurrence>& steps, const ProtocolStep& of, const StepOccurrence& heated) {
    for (int cycle = 1; cycle <= of.cycles; ++cycle) {
        StepOccurrence heat = heated;
        heat.cycle = cycle;
        if (of.hot) {
            heat.gate = GateKind::chipAbove;
            heat.gateValue = of.hot->value;
        }
        StepOccurrence cool;
        cool.kind = of.kind;
        cool.row = heated.row;
        cool.minutes = of.cold ? longestCoolMinutes : of.minutes;
        cool.cycle = cycle;
        if (of.cold) {
            cool.gate = GateKind::chipBelow;
            cool.gateValue = of.cold->value;
        }
        steps.push_back(std::move(heat));
        steps.push_back(std::move(cool));
    }
}

} // namespace

std::vector<StepOccurrence> conductedSteps(const std::vector<ProtocolStep>& protocol,
                                           const std::vector<const Load*>& loads, double slowestMinutes) {
    std::vector<StepOccurrence> steps;
    for (StepOccurrence& made : occurrencesOf(protocol, loads, slowestMinutes, StepKind::condition)) {
        if (made.kind == StepKind::condition) addCycles(steps, protocol[made.row], made);
        steps.push_back(std::move(made));
    }
    return steps;
}

std::string_view stepStateWord(StepState state) {
    static constexpr std::array<std::string_view, 6> words{"begun",   "done",   "timed-out",
                                                           "skipped", "paused", "aborted"};
    return words.at(static_cast<std::size_t>(state));
}

Conductor::Conductor(std::vector<StepOccurrence> steps) : steps_(std::move(steps)) {}

std::optional<double> Conductor::wantedW() const {
    return begun_ && !finished() && !paused_ ? steps_[at_].powerW : std::nullopt;
}

std::optional<GateReading> Conductor::gate() const {
    return watch_ && !paused_ ? std::optional(watch_->reading()) : std::nullopt;
}

void Conductor::begin(double timeS) {
    const StepOccurrence& step = steps_[at_];
    begun_ = true;
    beganS_ = timeS;
    watch_.reset();
    if (step.gate != GateKind::none) watch_.emplace(step.gate, step.gateValue, idleC_);
}

void Conductor::begin(double timeS, std::vector<StepEvent>& events) {
    begin(timeS);
    const bool rested = at_ > 0 && steps_[at_ - 1].load.empty() && (restC_ || restW_);
    waits_ = rested && !steps_[at_].load.empty();
    events.push_back({at_, StepState::begun, timeS, 60 * steps_[at_].minutes});
}

/// As a load is found in a log (core/reduce): by power where it is read, else by the chip's rise.
bool Conductor::showsLoad(const GateSample& sample) const {
    static constexpr PhaseSettings found;
    if (restW_ && sample.powerW) {
        const double wanted = steps_[at_].powerW.value_or(0) - *restW_;
        const double least = wanted > 0 ? std::min(found.minPowerStepW, 0.5 * wanted) : found.minPowerStepW;
        return *sample.powerW >= *restW_ + least;
    }
    return restC_ && sample.chipC && *sample.chipC >= *restC_ + found.minTemperatureStepK;
}

void Conductor::end(StepState state, double timeS, std::vector<StepEvent>& events) {
    if (steps_[at_].load.empty() && state != StepState::skipped)
        if (const auto mean = recentMean(idle_, timeS); mean && steps_[at_].kind == StepKind::idle)
            idleC_ = mean;
    if (steps_[at_].load.empty()) {
        restC_ = recentMean(idle_, timeS);
        restW_ = recentMean(idle_, timeS, &GateSample::powerW);
    }
    events.push_back({at_, state, timeS, {}, waits_ && state == StepState::timedOut});
    ++at_;
    begun_ = waits_ = false;
    watch_.reset();
    idle_.clear();
}

void Conductor::goTo(std::size_t step, double timeS, std::vector<StepEvent>& events) {
    paused_ = false;
    idle_.clear();
    at_ = step;
    if (!finished()) begin(timeS, events);
}

std::vector<StepEvent> Conductor::take(const GateSample& sample) {
    std::vector<StepEvent> events;
    if (finished() || paused_) return events;
    if (!begun_) begin(sample.timeS, events);
    const StepOccurrence& step = steps_[at_];
    if (step.load.empty()) {
        idle_.push_back(sample);
        while (idle_.front().timeS < sample.timeS - 60) idle_.pop_front();
    }
    if (step.byHand) return events;
    if (waits_ && showsLoad(sample)) {
        waits_ = false;
        if (sample.timeS - beganS_ > promptS) begin(sample.timeS); // from here on the chip is under load
    }
    const double minutes = (sample.timeS - beganS_ + 1e-9) / 60;
    if (watch_) watch_->take(sample);
    if (waits_ && minutes < step.minutes) return events;
    if (watch_ && !waits_ && watch_->reading().open && minutes >= step.leastMinutes)
        end(StepState::done, sample.timeS, events);
    else if (minutes >= step.minutes)
        end(watch_ || waits_ ? StepState::timedOut : StepState::done, sample.timeS, events);
    if (!finished() && !begun_) begin(sample.timeS, events);
    return events;
}

std::vector<StepEvent> Conductor::confirm(double timeS) {
    std::vector<StepEvent> events;
    if (finished() || paused_ || !steps_[at_].byHand) return events;
    if (!begun_) begin(timeS, events);
    end(StepState::done, timeS, events);
    if (!finished()) begin(timeS, events);
    return events;
}

std::vector<StepEvent> Conductor::skip(double timeS) {
    std::vector<StepEvent> events;
    if (finished()) return events;
    if (!begun_) begin(timeS, events);
    paused_ = false;
    end(StepState::skipped, timeS, events);
    if (!finished()) begin(timeS, events);
    return events;
}

std::vector<StepEvent> Conductor::pause(double timeS) {
    if (finished() || paused_) return {};
    paused_ = true;
    return {{at_, StepState::paused, timeS, {}}};
}

std::vector<StepEvent> Conductor::resume(double timeS) {
    std::vector<StepEvent> events;
    if (finished() || !paused_) return events;
    std::size_t from = at_;
    if (steps_[from].kind == StepKind::measure && from > 0 && steps_[from - 1].kind == StepKind::soak) --from;
    goTo(from, timeS, events);
    return events;
}

std::vector<StepEvent> Conductor::abort(double timeS) {
    if (finished()) return {};
    const std::size_t at = at_;
    at_ = steps_.size();
    begun_ = paused_ = waits_ = false;
    watch_.reset();
    return {{at, StepState::aborted, timeS, {}}};
}

std::vector<StepEvent> Conductor::startOver(double timeS) {
    std::vector<StepEvent> events;
    const auto first =
        std::find_if(steps_.begin(), steps_.end(), [](const StepOccurrence& step) { return !step.byHand; });
    if (first == steps_.end()) return events;
    if (begun_) events.push_back({at_, StepState::aborted, timeS, {}});
    goTo(static_cast<std::size_t>(first - steps_.begin()), timeS, events);
    return events;
}

} // namespace ibuki
