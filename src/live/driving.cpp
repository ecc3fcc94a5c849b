// SPDX-License-Identifier: GPL-3.0-or-later
#include "live/driving.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double roomLastsS = 60; ///< a room that was read longer ago is none

} // namespace

void Driving::add(std::size_t source, const std::vector<SourceChannel>& channels) {
    const std::lock_guard lock(mutex_);
    if (roles_.size() <= source) roles_.resize(source + 1);
    for (const SourceChannel& channel : channels) {
        roles_[source].push_back(channel.role);
        if (isChipTemperature(channel.role) && !driver_) driver_ = source;
    }
}

std::vector<StepEvent> Driving::take(std::size_t source, double arrivedS, const Reading& reading) {
    const std::lock_guard lock(mutex_);
    if (const auto read = room(source, reading)) {
        roomC_ = read;
        roomAtS_ = arrivedS;
    }
    if (source != driver_.value_or(0)) return {};
    if (!zeroS_) zeroS_ = reading.timeS;
    GateSample sample{reading.timeS - *zeroS_, hottest(source, reading), {}};
    if (arrivedS - roomAtS_ < roomLastsS) sample.roomC = roomC_;
    std::vector<StepEvent> events = conductor_.take(sample);
    if (!events.empty()) load_(conductor_.wantedW());
    return events;
}

template <class What> void Driving::each(std::size_t source, const Reading& reading, What&& what) const {
    const auto& roles = roles_.at(source);
    for (std::size_t i = 0; i < std::min(reading.values.size(), roles.size()); ++i)
        if (std::isfinite(reading.values[i])) what(roles[i], reading.values[i]);
}

/// Mean of all that read it.
std::optional<double> Driving::room(std::size_t source, const Reading& reading) const {
    double sum = 0;
    int count = 0;
    each(source, reading, [&](Role role, double value) {
        if (role != Role::ambient) return;
        sum += value;
        ++count;
    });
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

/// Of the cores; of any temperature of the chip where there are none.
std::optional<double> Driving::hottest(std::size_t source, const Reading& reading) const {
    std::optional<double> core;
    std::optional<double> any;
    each(source, reading, [&](Role role, double value) {
        if (role == Role::core) core = std::max(core.value_or(value), value);
        if (isChipTemperature(role)) any = std::max(any.value_or(value), value);
    });
    return core ? core : any;
}

} // namespace ibuki
