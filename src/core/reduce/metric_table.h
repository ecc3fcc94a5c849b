// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Every metric over one stretch of samples, each with its standard error (docs/methods.md A.9 and B.4).

#include "core/reduce/metric.h"
#include "core/reduce/reduction.h"

#include <map>

namespace ibuki {

/// Resolution as logged of each kind of temperature, K; 0 where nothing moved.
using SensorSteps = std::map<Role, double>;
SensorSteps sensorSteps(const Trace& trace, const ChipChannels& chip);

/// What metrics are made from.
struct MetricSource {
    const Trace& trace;
    const ChipChannels& chip;
    std::span<const double> ambientC;          ///< one a sample; empty without a room
    std::optional<double> enteredUncertaintyK; ///< standard, of a room read by hand
    const SensorSteps& stepsK;
};

/// Where the noise of a window is judged: over a stretch that holds it, with the time constant it settles by.
struct NoiseStretch {
    Segment segment;
    std::optional<double> tauS;
};

MetricTable metricTable(const MetricSource& source, Segment segment, const NoiseStretch& stretch);

} // namespace ibuki
