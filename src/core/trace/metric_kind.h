// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The temperatures a run can be judged by, by name; core/reduce/metric.h has how each is taken. Labels in
// brackets are the definitions of docs/methods.md, section "Metrics".

#include <array>
#include <optional>
#include <string_view>

namespace ibuki {

enum class Metric {
    hottest,     ///< time mean of the hottest core at each sample (M7)
    coreAverage, ///< time mean of the mean over cores (M2)
    coreMaxima,  ///< mean over cores of each core's maximum (M4)
    peak,        ///< the single highest core sample (M3)
    p95,         ///< 95th percentile over time of the hottest core (M8)
    package,
    hotspot,
    gpu,
    memory,
    vrm,
    coolant
};

inline constexpr std::array allMetrics{Metric::hottest, Metric::coreAverage, Metric::coreMaxima, Metric::peak,
                                       Metric::p95,     Metric::package,     Metric::hotspot,    Metric::gpu,
                                       Metric::memory,  Metric::vrm,         Metric::coolant};

/// In the enumeration's order.
inline constexpr std::array<std::string_view, allMetrics.size()> metricWordList{
    "hottest", "core-average", "core-maxima", "peak", "p95",    "package",
    "hotspot", "gpu",          "memory",      "vrm",  "coolant"};

std::string_view metricName(Metric metric); ///< "core-average"
std::optional<Metric> metricFromName(std::string_view name);
std::string_view metricTitle(Metric metric); ///< "average over cores"
bool isGraphicsMetric(Metric metric);

} // namespace ibuki
