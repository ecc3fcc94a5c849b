// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The room beside every sample: mean of the ambient channels, gaps filled by linear interpolation, or one
// value entered by hand (docs/methods.md, "Room").

#include "core/reduce/metric.h"
#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

namespace ibuki {

struct AmbientSeries {
    AmbientSource source = AmbientSource::none;
    std::vector<double> valuesC; ///< one a sample; empty without any ambient
};

AmbientSeries ambientSeries(const Trace& trace, const ReduceSettings& settings);

AmbientSummary summarise(const AmbientSeries& ambient, Segment window);

/// Slope (with its interval) or range of the one-minute means beyond the settings: flag ambient-drift.
void flagAmbientDrift(std::vector<Flag>& flags, const Trace& trace, const AmbientSeries& ambient,
                      Segment window, const ReduceSettings& settings);

/// Means of consecutive stretches of `lengthS`; a last stretch shorter than half of it is left out.
std::vector<double> blockMeans(std::span<const double> timeS, std::span<const double> x, double lengthS);

} // namespace ibuki
