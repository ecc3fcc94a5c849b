// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/metric_kind.h"

#include <algorithm>

namespace ibuki {

std::string_view metricName(Metric metric) { return metricWordList.at(static_cast<std::size_t>(metric)); }

std::optional<Metric> metricFromName(std::string_view name) {
    const auto found = std::find(metricWordList.begin(), metricWordList.end(), name);
    if (found == metricWordList.end()) return std::nullopt;
    return static_cast<Metric>(found - metricWordList.begin());
}

std::string_view metricTitle(Metric metric) {
    static constexpr std::array<std::string_view, allMetrics.size()> titles{
        "hottest core",
        "average over cores",
        "average of core maxima",
        "single highest core sample",
        "95th percentile of the hottest core",
        "package",
        "hot spot",
        "GPU die",
        "memory",
        "power stages",
        "coolant"};
    return titles.at(static_cast<std::size_t>(metric));
}

bool isGraphicsMetric(Metric metric) {
    return metric == Metric::gpu || metric == Metric::hotspot || metric == Metric::memory
           || metric == Metric::vrm;
}

} // namespace ibuki
