// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/order_statistics.h"

#include "core/base/random.h"
#include "core/distributions/memo.h"
#include "core/distributions/normal.h"
#include "core/distributions/studentized_range.h"
#include "core/models/least_squares.h"

#include <algorithm>
#include <cmath>
#include <map>

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

namespace {

constexpr int draws = 20'000;

/// Groups whose means are known by one scatter.
struct Contest {
    std::vector<std::size_t> taken; ///< indexes of groups
    std::vector<double> means;      ///< the lower, the better
    double df = 0;
};

/// Means that are independent: an integral over one of them.
double chanceAlone(const Contest& contest, const std::vector<double>& se, std::size_t i) {
    const auto ahead = [&](double s, double z) {
        double product = normalDensity(z);
        for (std::size_t j = 0; j < se.size(); ++j) {
            if (j == i || product < 1e-14) continue;
            product *= normalCdf(-(contest.means[i] + se[i] * z / s - contest.means[j]) * s / se[j]);
        }
        return product;
    };
    return expectOverScale(contest.df,
                           [&](double s) { return integral(coarse, [&](double z) { return ahead(s, z); }); });
}

/// Variances of the differences; nothing when a pair has none.
std::optional<Columns> differenceVariances(const Comparison& comparison, const Contest& contest) {
    const std::size_t k = contest.taken.size();
    Columns variances(k, k);
    std::size_t found = 0;
    for (const PairComparison& pair : comparison.pairs) {
        const auto place = [&](std::size_t group) {
            return static_cast<std::size_t>(std::find(contest.taken.begin(), contest.taken.end(), group)
                                            - contest.taken.begin());
        };
        const std::size_t a = place(pair.a), b = place(pair.b);
        if (a == k || b == k || !pair.se) continue;
        variances[a][b] = variances[b][a] = *pair.se * *pair.se;
        ++found;
    }
    return found == k * (k - 1) / 2 ? std::optional(variances) : std::nullopt;
}

/// Means that hang together by blocks or lines: seeded draws of their differences from the first, whose
/// covariance follows from the variances of all differences.
std::vector<double> chancesTogether(const Contest& contest, const Columns& variances) {
    const std::size_t m = contest.taken.size() - 1;
    Columns root(m, m); // Cholesky's factor
    for (std::size_t i = 0; i < m; ++i)
        for (std::size_t j = 0; j <= i; ++j) {
            double rest = 0.5 * (variances[0][i + 1] + variances[0][j + 1] - variances[i + 1][j + 1]);
            for (std::size_t c = 0; c < j; ++c) rest -= root[c][i] * root[c][j];
            root[j][i] = i == j ? std::sqrt(std::max(0.0, rest)) : root[j][j] > 0 ? rest / root[j][j] : 0;
        }
    Random random(1);
    std::vector<double> off(static_cast<std::size_t>(draws) * m), z(m);
    for (std::size_t d = 0; d < static_cast<std::size_t>(draws); ++d) {
        for (double& one : z) one = random.normal();
        for (std::size_t i = 0; i < m; ++i)
            for (std::size_t c = 0; c <= i; ++c) off[d * m + i] += root[c][i] * z[c];
    }
    std::map<double, std::vector<long>> wonAt; // by the scale: it is asked for every group at the same ones
    const auto wins = [&](double scale) {
        std::vector<long> won(m + 1, 0);
        for (std::size_t d = 0; d < static_cast<std::size_t>(draws); ++d) {
            std::size_t best = 0;
            double lowest = contest.means[0];
            for (std::size_t i = 0; i < m; ++i)
                if (const double at = contest.means[i + 1] + off[d * m + i] / scale; at < lowest) {
                    lowest = at;
                    best = i + 1;
                }
            ++won[best];
        }
        return won;
    };
    std::vector<double> chances(m + 1);
    for (std::size_t of = 0; of <= m; ++of)
        chances[of] = expectOverScale(contest.df, [&](double scale) {
            auto at = wonAt.find(scale);
            if (at == wonAt.end()) at = wonAt.emplace(scale, wins(scale)).first;
            return static_cast<double>(at->second[of]) / draws;
        });
    return chances;
}

} // namespace

std::vector<std::optional<double>> chancesOfBest(const Comparison& comparison) {
    std::vector<std::optional<double>> chances(comparison.groups.size());
    Contest contest;
    contest.df = comparison.df;
    std::vector<double> se;
    for (std::size_t i = 0; i < comparison.groups.size(); ++i) {
        const GroupSummary& group = comparison.groups[i];
        if (!group.adjusted || !group.se || !(*group.se > 0) || group.censoredMounts > 0) continue;
        contest.taken.push_back(i);
        contest.means.push_back((comparison.options.lowerIsBetter ? 1 : -1) * *group.adjusted);
        se.push_back(*group.se);
    }
    const std::size_t k = contest.taken.size();
    if (!comparison.pooledSd || k < 2 || k > mostGroups) return chances;
    static Memo memo;
    std::vector<double> asked{contest.df};
    asked.insert(asked.end(), contest.means.begin(), contest.means.end());
    if (!comparison.options.takesOut()) {
        asked.insert(asked.end(), se.begin(), se.end());
        for (std::size_t i = 0; i < k; ++i) {
            std::vector<double> one = asked;
            one.push_back(static_cast<double>(i));
            chances[contest.taken[i]] = memo(std::move(one), [&] { return chanceAlone(contest, se, i); });
        }
        return chances;
    }
    const auto variances = differenceVariances(comparison, contest);
    if (!variances) return chances;
    for (std::size_t a = 0; a < k; ++a)
        asked.insert(asked.end(), (*variances)[a].begin(), (*variances)[a].end());
    std::vector<double> together; // worked out for all of them, kept one by one
    for (std::size_t i = 0; i < k; ++i) {
        std::vector<double> one = asked;
        one.push_back(-1 - static_cast<double>(i));
        chances[contest.taken[i]] = memo(std::move(one), [&] {
            if (together.empty()) together = chancesTogether(contest, *variances);
            return together[i];
        });
    }
    return chances;
}

std::optional<BestOf> bestOf(const Comparison& comparison) {
    if (comparison.groups.empty() || !comparison.pooledSd || isProvisional(comparison)) return std::nullopt;
    const int mounts = comparison.groups.front().mounts;
    for (const GroupSummary& group : comparison.groups)
        if (group.mounts != mounts || group.censoredMounts > 0) return std::nullopt;
    if (mounts < 2) return std::nullopt;
    return BestOf{mounts, expectedLowest(mounts) * *comparison.pooledSd};
}

} // namespace ibuki
