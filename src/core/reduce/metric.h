// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The temperatures a run can be judged by, over one stretch of samples (docs/methods.md, section "Metrics").

#include "core/trace/metric_kind.h"
#include "core/trace/trace.h"

#include <optional>
#include <span>

namespace ibuki {

/// Half-open range of sample indexes.
struct Segment {
    std::size_t begin = 0;
    std::size_t end = 0;
    std::size_t size() const { return end - begin; }
    bool operator==(const Segment&) const = default;
};

/// The channels the metrics are made from: stuck sensors are already left out.
struct ChipChannels {
    std::vector<const Channel*> cores; ///< cores, else the package, else the GPU die
    Role role = Role::core;
    bool coresAreReal = false; ///< false when the package or the GPU stands in
};

/// The role whose hottest channel a metric is; nothing for those made of cores.
std::optional<Role> roleOf(Metric metric);

ChipChannels chipChannels(const Trace& trace, std::span<const Channel* const> stuck);

/// The series a metric averages, sample by sample over the whole trace (°C); for core-maxima and peak that of
/// the hottest core. Empty when the trace has no such channel.
std::vector<double> metricSeries(const Trace& trace, const ChipChannels& chip, Metric metric);
/// The same over a segment alone.
std::vector<double> metricSeries(const Trace& trace, const ChipChannels& chip, Metric metric,
                                 Segment segment);

/// The metric over a segment of the temperatures, or of the temperatures less `ambient` (sample by sample)
/// when it is not empty. Nothing when the trace has no such channel or no sample of it in the segment.
std::optional<double> metricOver(const Trace& trace, const ChipChannels& chip, Metric metric, Segment segment,
                                 std::span<const double> ambient);

/// Arithmetic mean when the stamps are equidistant, else by trapezoids that do not bridge gaps of more than
/// five median intervals. NaN samples are left out.
double timeMean(std::span<const double> timeS, std::span<const double> x);

} // namespace ibuki
