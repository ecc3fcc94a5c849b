// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/driving.h"

#include <algorithm>

namespace ibuki {

Driving::Driving(std::vector<StepOccurrence> steps, std::optional<MonitorRules> rules,
                 std::function<void(std::optional<double>)> load)
    : conductor_(std::move(steps)), load_(std::move(load)) {
    if (rules) watch_.emplace(std::move(*rules));
}

void Driving::add(std::size_t source, const std::vector<SourceChannel>& channels, double keptS) {
    const std::lock_guard lock(mutex_);
    if (places_.size() <= source) places_.resize(source + 1);
    for (const SourceChannel& channel : channels) {
        places_[source].push_back(channels_++);
        latest_.add(channel.role, keptS);
        if (isChipTemperature(channel.role) && !driver_) driver_ = source;
    }
}

Driven Driving::take(std::size_t source, double arrivedS, const TimedRow& reading) {
    const std::lock_guard lock(mutex_);
    latest_.take(places_.at(source), reading.values, arrivedS);
    if (source != driver_.value_or(0)) return {};
    if (!zeroS_) zeroS_ = reading.timeS;
    sample_ = latest_.at(arrivedS);
    sample_.timeS = reading.timeS - *zeroS_;
    Driven driven;
    driven.steps = conductor_.take(sample_);
    note(driven.steps);
    if (!running_.empty() && conductor_.waitsForLoad()) loadBeganS_ = sample_.timeS;
    if (watch_) driven.watched = watch(sample_);
    const bool mustStop =
        std::any_of(driven.watched.begin(), driven.watched.end(), [](const MonitorEvent& event) {
            return event.flag.severity == Severity::reject && !event.over;
        });
    if (mustStop) {
        const auto aborted = conductor_.abort(sample_.timeS);
        note(aborted);
        driven.steps.insert(driven.steps.end(), aborted.begin(), aborted.end());
    }
    if (!driven.steps.empty()) load_(conductor_.wantedW());
    return driven;
}

Driven Driving::say(Word word) {
    const std::lock_guard lock(mutex_);
    const double now = sample_.timeS;
    Driven driven;
    switch (word) {
    case Word::manualWorkDone:
        driven.steps = conductor_.confirm(now);
        break;
    case Word::skip:
        driven.steps = conductor_.skip(now);
        break;
    case Word::pause:
        driven.steps = conductor_.pause(now);
        break;
    case Word::resume:
        driven.steps = conductor_.resume(now);
        break;
    case Word::abort:
        driven.steps = conductor_.abort(now);
        break;
    case Word::startOver:
        driven.steps = conductor_.startOver(now);
        break;
    }
    note(driven.steps);
    if (!driven.steps.empty()) load_(conductor_.wantedW());
    return driven;
}

/// Since when the load runs.
void Driving::note(const std::vector<StepEvent>& events) {
    for (const StepEvent& event : events) {
        const bool begun = event.state == StepState::begun;
        const std::string load = begun ? conductor_.steps()[event.step].load : std::string();
        if (!begun && event.state != StepState::paused && event.state != StepState::aborted) continue;
        if (load != running_) loadBeganS_ = event.timeS;
        running_ = load;
    }
}

std::vector<MonitorEvent> Driving::watch(const BenchSample& sample) {
    const StepOccurrence* now = conductor_.isPaused() ? nullptr : conductor_.current();
    StepOccurrence rests;
    rests.kind = StepKind::idle;
    const double began = now && !running_.empty() ? loadBeganS_ : conductor_.beganS();
    return watch_->take(sample, now ? *now : rests, now ? sample.timeS - began : 0);
}

RunStatus Driving::status() const {
    const std::lock_guard lock(mutex_);
    RunStatus status;
    status.sample = sample_;
    status.place = conductor_.place();
    status.count = conductor_.steps().size();
    if (const StepOccurrence* step = conductor_.current()) status.step = *step;
    status.stepBeganS = conductor_.beganS();
    status.paused = conductor_.isPaused();
    status.gate = conductor_.gate();
    status.waitsForLoad = conductor_.waitsForLoad();
    if (!running_.empty()) status.loadBeganS = loadBeganS_;
    if (!watch_) return status;
    status.statusLights = watch_->statusLights();
    const double left = status.step ? status.stepBeganS + 60 * status.step->minutes - sample_.timeS : 0;
    if (status.gate && status.gate->opensInS && *status.gate->opensInS > left)
        status.unsteady = watch_->unsteady();
    return status;
}

} // namespace ibuki
