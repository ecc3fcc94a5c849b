// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where a log is under load: two levels of power (or temperature) with hysteresis, each edge then placed by
// the L1 two-segment fit on the raw samples (docs/methods.md, "Load edges").

#include "core/reduce/metric.h"
#include "core/reduce/settings.h"

namespace ibuki {

/// Loads in time order, as sample ranges. Power is preferred; the temperature serves when power is missing
/// or flat. Both may be empty; then there is no load.
std::vector<Segment> findLoads(std::span<const double> timeS, std::span<const double> power,
                               std::span<const double> temperature, const PhaseSettings& settings = {});

/// k that minimises Σ_{i<k}|x_i − med| + Σ_{i≥k}|x_i − med|, 1 ≤ k < n; 0 when n < 2.
std::size_t l1Split(std::span<const double> x);

} // namespace ibuki
