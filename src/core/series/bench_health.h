// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Did the bench move? Check mounts in the order they were made: exponentially weighted moving average with
// exact limits (Roberts 1959; Lucas & Saccucci 1990) and a line over the order (docs/methods.md, "Bench
// health").

#include "core/distributions/interval.h"

#include <optional>
#include <vector>

namespace ibuki {

struct CheckValue {
    double order = 0;
    double value = 0;
};

struct HealthOptions {
    std::optional<int>
        baseline;             ///< of how many first mounts the centre is the mean; nothing: half, at least 3
    double lambda = 0.2;      ///< in (0, 1]
    double limit = 2.7;       ///< standard deviations
    std::optional<double> sd; ///< between check mounts; nothing: mean moving range of the baseline / 1.128
    double confidence = 0.95; ///< of the slope's interval
};

struct HealthPoint {
    double order = 0;
    double value = 0;
    double ewma = 0;
    double low = 0;
    double high = 0;
    bool out = false;
};

struct BenchHealth {
    double centre = 0;
    double sigma = 0;
    int baseline = 0;
    std::vector<HealthPoint> points; ///< by order
    bool moved = false;
    std::optional<double> firstOut; ///< order of the first point that is out
    double slope = 0;               ///< a mount
    Interval slopeInterval;
    double slopeP = 1;
};

/// Throws InputError: fewer than five values, no scatter and none stated, options out of range, all of one
/// order.
BenchHealth judgeHealth(std::vector<CheckValue> values, const HealthOptions& options = {});

} // namespace ibuki
