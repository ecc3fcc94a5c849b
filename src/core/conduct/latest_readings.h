// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a bench reads now, put together from sources of which each tells a part at its own pace.

#include "core/conduct/gate_watch.h"
#include "core/trace/role.h"

#include <optional>
#include <vector>

namespace ibuki {

/// chipC: the hottest core, or the hottest of the chip where there are none.
struct BenchSample : GateSample {
    std::optional<double> highestC; ///< of all temperatures but coolant and room
    std::optional<double> coolantC;
    std::optional<double> fanRpm;
    std::optional<double> clockMHz;
    std::optional<double> limitShare; ///< 0 to 1: the log itself says that a limit acts
    std::vector<double> coresC;       ///< NaN: not read
    std::vector<double> chipsC;       ///< every temperature of the chip, the cores among them
};

class LatestReadings {
public:
    static constexpr double lastsS = 60; ///< what was read longer ago is not what it reads now

    /// At the end. keptS: how long a reading of it counts; typed ones do longer.
    void add(Role role, double keptS = lastsS);
    /// Values of channels from `first` on, NaN for what was not read. timeS: one clock for all.
    void take(std::size_t first, const std::vector<double>& values, double timeS);
    void take(const std::vector<std::size_t>& channels, const std::vector<double>& values, double timeS);
    BenchSample at(double timeS) const;
    const std::vector<double>& values() const { return values_; } ///< NaN before the first

private:
    void put(std::size_t channel, double value, double timeS);

    std::vector<Role> roles_;
    std::vector<double> keptS_;
    std::vector<double> values_;
    std::vector<double> readAtS_;
};

} // namespace ibuki
