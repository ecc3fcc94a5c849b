// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/order_statistics.h"

#include "core/stats/memo.h"
#include "core/stats/normal.h"
#include "core/stats/studentized_range.h"

#include <cmath>

namespace ibuki {
namespace {

constexpr double reach = 9;
constexpr double step = 0.02;   ///< of integrals over one normal
constexpr double coarse = 0.25; ///< of those inside another integral
constexpr std::size_t mostGroups = 40;

/// Trapezoid over all z that matter.
template <class Function> double integral(double h, Function&& f) {
    double sum = 0;
    for (double z = -reach; z <= reach; z += h) sum += f(z);
    return sum * h;
}

} // namespace

double expectedRange(int k) {
    return integral(step,
                    [k](double x) { return 1 - std::pow(normalCdf(x), k) - std::pow(normalCdf(-x), k); });
}

double expectedLowest(int n) {
    return -integral(step,
                     [n](double z) { return z * n * normalDensity(z) * std::pow(normalCdf(-z), n - 1); });
}

std::optional<double> spreadOfIdentical(const Comparison& comparison) {
    double reciprocals = 0;
    int k = 0;
    for (const GroupSummary& group : comparison.groups) {
        if (!group.adjusted) continue;
        reciprocals += 1.0 / group.mounts;
        ++k;
    }
    if (k < 3 || !comparison.pooledSd || !(*comparison.pooledSd > 0)) return std::nullopt;
    return expectedRange(k) * *comparison.pooledSd * std::sqrt(reciprocals / k);
}

std::vector<std::optional<double>> chancesOfBest(const Comparison& comparison) {
    std::vector<std::optional<double>> chances(comparison.groups.size());
    std::vector<std::size_t> taken;
    for (std::size_t i = 0; i < comparison.groups.size(); ++i) {
        const GroupSummary& group = comparison.groups[i];
        if (group.adjusted && group.se && *group.se > 0 && group.limitBoundMounts == 0) taken.push_back(i);
    }
    const bool plain = comparison.pooledSd && !comparison.options.takesOut();
    if (!plain || taken.size() < 2 || taken.size() > mostGroups) return chances;
    const double sign = comparison.options.lowerIsBetter ? 1 : -1;
    static Memo memo;
    std::vector<double> all{comparison.df, sign};
    for (const std::size_t i : taken) {
        all.push_back(*comparison.groups[i].adjusted);
        all.push_back(*comparison.groups[i].se);
    }
    for (const std::size_t i : taken) {
        const double mean = sign * *comparison.groups[i].adjusted;
        const double se = *comparison.groups[i].se;
        const auto ahead = [&](double s, double z) {
            double product = normalDensity(z);
            for (const std::size_t j : taken) {
                if (j == i || product < 1e-14) continue;
                const double other = sign * *comparison.groups[j].adjusted;
                product *= normalCdf(-(mean + se * z / s - other) * s / *comparison.groups[j].se);
            }
            return product;
        };
        std::vector<double> asked = all;
        asked.push_back(static_cast<double>(i));
        chances[i] = memo(std::move(asked), [&] {
            return expectOverScale(comparison.df, [&](double s) {
                return integral(coarse, [&](double z) { return ahead(s, z); });
            });
        });
    }
    return chances;
}

std::optional<BestOf> bestOf(const Comparison& comparison) {
    if (comparison.groups.empty() || !comparison.pooledSd || isProvisional(comparison)) return std::nullopt;
    const int mounts = comparison.groups.front().mounts;
    for (const GroupSummary& group : comparison.groups)
        if (group.mounts != mounts || group.limitBoundMounts > 0) return std::nullopt;
    if (mounts < 2) return std::nullopt;
    return BestOf{mounts, expectedLowest(mounts) * *comparison.pooledSd};
}

} // namespace ibuki
