// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Did the chip sit at its temperature limit? Then ΔT is only a lower bound (docs/methods.md, "Limit").

#include "core/reduce/metric.h"
#include "core/reduce/reduction.h"

namespace ibuki {

struct LimitInput {
    std::span<const double> timeS;
    std::span<const double> temperature; ///< of the metric, °C
    std::span<const double> power;       ///< may be empty
    std::span<const double> clock;       ///< may be empty; mean over the clocks
    std::span<const double> limitFlag;   ///< may be empty; non-zero is set
    double sensorStepK = 0;              ///< 0 when not known
    Segment load;
    Segment window;
};

/// Bound when the limit flag is set in 1 % of the load's samples, or limitShare of them lie within 1 K (or
/// one sensor step) of the limit, or power and clock were cut while the temperature stood still.
LimitSummary judgeLimit(const LimitInput& input, const ReduceSettings& settings);

} // namespace ibuki
