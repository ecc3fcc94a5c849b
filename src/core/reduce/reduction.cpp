// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/reduction.h"

#include <algorithm>

namespace ibuki {

std::optional<Phase> loadPhase(const LoadReduction& load) {
    for (const Phase& phase : load.phases)
        if (phase.name == "load") return phase;
    return std::nullopt;
}

std::optional<double> hottestOf(const std::vector<LoadReduction>& loads) {
    std::optional<double> hottest;
    for (const LoadReduction& load : loads)
        for (const auto& [metric, value] : load.metrics)
            if (value.temperatureC)
                hottest = std::max(hottest.value_or(*value.temperatureC), *value.temperatureC);
    return hottest;
}

const LoadReduction* JudgedBy::load(int index) const {
    const auto at = index < 0 ? longest : std::optional(static_cast<std::size_t>(index));
    return at && *at < loads->size() ? &(*loads)[*at] : nullptr;
}

JudgedBy judgedBy(const Reduction& reduction, Metric metric) {
    const auto other = reduction.others.find(metric);
    if (other == reduction.others.end()) return {&reduction.loads, reduction.longest, &reduction.flags};
    return {&other->second.loads, other->second.longest, &other->second.flags};
}

Reduction onlyBy(const Reduction& reduction, Metric metric) {
    Reduction one = reduction;
    one.others.clear();
    const auto other = reduction.others.find(metric);
    if (other == reduction.others.end()) return one;
    one.metric = metric;
    one.loads = other->second.loads;
    one.longest = other->second.longest;
    one.flags = other->second.flags;
    return one;
}

std::optional<double> countedDeltaK(const LoadReduction& load, Metric metric) {
    if (load.extrapolated && load.metric == metric) return load.steady.asymptoteK;
    const auto value = load.metrics.find(metric);
    return value == load.metrics.end() ? std::nullopt : value->second.deltaK;
}

std::optional<double> countedRthKPerW(const LoadReduction& load, Metric metric) {
    const auto delta = countedDeltaK(load, metric);
    if (!delta || !load.powerW || !(*load.powerW > 0)) return std::nullopt;
    return *delta / *load.powerW;
}

} // namespace ibuki
