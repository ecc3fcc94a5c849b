// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/latest_readings.h"

#include "core/base/nan.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

void raise(std::optional<double>& to, double value) { to = std::max(to.value_or(value), value); }

} // namespace

void LatestReadings::add(Role role, double keptS) {
    roles_.push_back(role);
    keptS_.push_back(keptS);
    values_.push_back(nan);
    readAtS_.push_back(0);
}

void LatestReadings::put(std::size_t channel, double value, double timeS) {
    if (channel >= values_.size() || !std::isfinite(value)) return;
    values_[channel] = value;
    readAtS_[channel] = timeS;
}

void LatestReadings::take(std::size_t first, const std::vector<double>& values, double timeS) {
    for (std::size_t i = 0; i < values.size(); ++i) put(first + i, values[i], timeS);
}

void LatestReadings::take(const std::vector<std::size_t>& channels, const std::vector<double>& values,
                          double timeS) {
    for (std::size_t i = 0; i < std::min(channels.size(), values.size()); ++i)
        put(channels[i], values[i], timeS);
}

BenchSample LatestReadings::at(double timeS) const {
    BenchSample sample;
    sample.timeS = timeS;
    std::optional<double> core;
    double ambientSum = 0;
    int rooms = 0;
    for (std::size_t i = 0; i < roles_.size(); ++i) {
        const bool read = std::isfinite(values_[i]) && timeS - readAtS_[i] <= keptS_[i];
        const double value = read ? values_[i] : nan;
        if (roles_[i] == Role::core) sample.coresC.push_back(value);
        if (isChipTemperature(roles_[i])) sample.chipsC.push_back(value);
        if (!read) continue;
        if (isChipTemperature(roles_[i])) raise(sample.highestC, value);
        switch (roles_[i]) {
        case Role::core:
            raise(core, value);
            break;
        case Role::coolant:
            raise(sample.coolantC, value);
            break;
        case Role::ambient:
            ambientSum += value;
            ++rooms;
            break;
        case Role::packagePower:
        case Role::gpuPower:
            raise(sample.powerW, value);
            break;
        case Role::fan:
            raise(sample.fanRpm, value);
            break;
        case Role::clock:
        case Role::gpuClock:
            raise(sample.clockMHz, value);
            break;
        case Role::limitFlag:
            raise(sample.limitShare, value);
            break;
        default:
            break;
        }
    }
    if (rooms > 0) sample.ambientC = ambientSum / rooms;
    sample.chipC = core ? core : sample.highestC;
    return sample;
}

} // namespace ibuki
