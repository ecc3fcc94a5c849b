// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where a log is under load: two levels of power with hysteresis, each edge then placed by the L1 two-segment
// fit on the raw samples; without power two levels of temperature, each edge placed between two settling
// courses; one load when all of it is under load (docs/methods.md, "Load edges").

#include "core/reduce/metric.h"
#include "core/reduce/settings.h"

namespace ibuki {

/// What tells a load, on one time axis; empty where it was not logged.
struct LoadSignals {
    std::span<const double> timeS = {};
    std::span<const double> power = {};       ///< W
    bool isWallPower = false;                 ///< of the whole machine: its level tells nothing, its edges do
    std::span<const double> temperature = {}; ///< °C
    std::span<const double> ambientC = {};
    std::span<const double> utilisation = {}; ///< % of the device's time
    std::optional<double> nominalW = {};
};

/// Loads in time order, as sample ranges. Power is preferred; the temperature serves when power is missing or
/// flat. A log without edges is one load when its level says so (`isLoaded`). May be empty; then there is no
/// load.
std::vector<Segment> findLoads(const LoadSignals& seen, const PhaseSettings& settings = {});

/// Whether signals that stand still are those of a load: utilisation above half; power above half the
/// nominal, or such as no idle device takes; a chip far above the room. Thresholds: docs/methods.md, "Load
/// edges".
bool isLoaded(const LoadSignals& seen);

/// k that minimises Σ_{i<k}|x_i − med| + Σ_{i≥k}|x_i − med|, 1 ≤ k < n; 0 when n < 2.
std::size_t l1Split(std::span<const double> x);

} // namespace ibuki
