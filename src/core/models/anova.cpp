// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/anova.h"

#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <cmath>

namespace ibuki {

FTest fTest(double f, double df1, double df2) {
    const double p = std::isfinite(f) && f >= 0 ? fisherUpper(f, df1, df2) : 0;
    return {f, df1, df2, p};
}

std::optional<OneWayAnova> oneWayAnova(const Groups& groups) {
    if (groups.size() < 2) return std::nullopt;
    std::size_t all = 0;
    for (const auto& group : groups) {
        if (group.empty()) return std::nullopt;
        all += group.size();
    }
    if (all <= groups.size()) return std::nullopt;
    const double origin = groups.front().front();
    OneWayAnova result;
    std::vector<double> means;
    double grand = 0;
    for (const auto& group : groups) {
        std::vector<double> shifted;
        for (double v : group) shifted.push_back(v - origin);
        means.push_back(mean(shifted));
        grand += means.back() * static_cast<double>(group.size());
        result.withinSs += sumOfSquares(shifted);
    }
    grand /= static_cast<double>(all);
    for (std::size_t i = 0; i < groups.size(); ++i)
        result.betweenSs += static_cast<double>(groups[i].size()) * (means[i] - grand) * (means[i] - grand);
    const double df1 = static_cast<double>(groups.size() - 1);
    const double df2 = static_cast<double>(all - groups.size());
    result.pooledVariance = result.withinSs / df2;
    result.test = fTest(result.betweenSs / df1 / result.pooledVariance, df1, df2);
    return result;
}

std::optional<FTest> welchAnova(const Groups& groups) {
    if (groups.size() < 2) return std::nullopt;
    const double k = static_cast<double>(groups.size());
    std::vector<double> weights;
    std::vector<double> means;
    double weightSum = 0;
    double weighted = 0;
    const double origin = groups.front().empty() ? 0 : groups.front().front();
    for (const auto& group : groups) {
        const auto sd = sampleSd(group);
        if (!sd || !(*sd > 0)) return std::nullopt;
        weights.push_back(static_cast<double>(group.size()) / (*sd * *sd));
        means.push_back(mean(group) - origin);
        weightSum += weights.back();
        weighted += weights.back() * means.back();
    }
    const double centre = weighted / weightSum;
    double a = 0;
    double b = 0;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        a += weights[i] * (means[i] - centre) * (means[i] - centre) / (k - 1);
        const double share = 1 - weights[i] / weightSum;
        b += share * share / static_cast<double>(groups[i].size() - 1);
    }
    return fTest(a / (1 + 2 * (k - 2) * b / (k * k - 1)), k - 1, (k * k - 1) / (3 * b));
}

std::optional<FTest> brownForsytheSpread(const Groups& groups) {
    Groups deviations;
    for (const auto& group : groups) {
        const double middle = median(group);
        std::vector<double> part;
        for (double v : group) part.push_back(std::abs(v - middle));
        deviations.push_back(std::move(part));
    }
    const auto anova = oneWayAnova(deviations);
    if (!anova || !(anova->withinSs > 0)) return std::nullopt;
    return anova->test;
}

} // namespace ibuki
