// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/few_mounts.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace ibuki {
namespace {

constexpr double mostWays = 200'000;
constexpr double tie = 1e-12; ///< of the values' spread

double ways(std::size_t n, std::size_t k) {
    double count = 1;
    for (std::size_t i = 1; i <= k; ++i)
        count = count * static_cast<double>(n - k + i) / static_cast<double>(i);
    return std::round(count);
}

} // namespace

std::vector<double> holm(std::span<const double> p) {
    std::vector<std::size_t> order(p.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return p[a] < p[b]; });
    std::vector<double> adjusted(p.size());
    double largest = 0;
    for (std::size_t rank = 0; rank < order.size(); ++rank) {
        largest = std::max(largest, static_cast<double>(p.size() - rank) * p[order[rank]]);
        adjusted[order[rank]] = std::min(1.0, largest);
    }
    return adjusted;
}

std::optional<PermutationTest> permutationTest(std::span<const double> a, std::span<const double> b) {
    const std::size_t n = a.size() + b.size();
    if (a.empty() || b.empty() || ways(n, a.size()) > mostWays) return std::nullopt;
    std::vector<double> values(a.begin(), a.end());
    values.insert(values.end(), b.begin(), b.end());
    const double origin = values.front(); // an offset costs no digits
    for (double& value : values) value -= origin;
    const double total = std::accumulate(values.begin(), values.end(), 0.0);
    const auto [lo, hi] = std::minmax_element(values.begin(), values.end());
    // The difference of means grows with how far the first group's sum is from its share of the total.
    const double share = total * static_cast<double>(a.size()) / static_cast<double>(n);
    const double slack = tie * static_cast<double>(n) * std::max(*hi - *lo, 1e-300);
    const double seen = std::abs(
        std::accumulate(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(a.size()), 0.0) - share);
    std::vector<bool> first(n);
    std::fill(first.begin(), first.begin() + static_cast<std::ptrdiff_t>(a.size()), true);
    double count = 0;
    double extreme = 0;
    do {
        double sum = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (first[i]) sum += values[i];
        extreme += std::abs(sum - share) >= seen - slack ? 1 : 0;
        ++count;
    } while (std::prev_permutation(first.begin(), first.end()));
    // Groups of one size can change places: two ways are the most extreme then.
    return PermutationTest{extreme / count, (a.size() == b.size() ? 2 : 1) / count};
}

namespace {

bool canBeDealt(const GroupSummary& group) { return group.mounts > 1 && group.limitBoundMounts == 0; }

} // namespace

std::optional<PairPermutation> permutationOf(const Comparison& comparison, std::size_t pair) {
    std::vector<std::size_t> dealt;
    double all = 0;
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const GroupSummary& a = comparison.groups[comparison.pairs[i].a];
        const GroupSummary& b = comparison.groups[comparison.pairs[i].b];
        if (!canBeDealt(a) || !canBeDealt(b)) continue;
        dealt.push_back(i);
        all += ways(a.mountMeans.size() + b.mountMeans.size(), a.mountMeans.size());
    }
    const auto ours = std::find(dealt.begin(), dealt.end(), pair);
    if (ours == dealt.end()) return std::nullopt;
    const auto test = [&](std::size_t i) {
        return permutationTest(comparison.groups[comparison.pairs[i].a].mountMeans,
                               comparison.groups[comparison.pairs[i].b].mountMeans);
    };
    const auto exact = test(pair);
    if (!exact) return std::nullopt;
    PairPermutation found{*exact, std::nullopt};
    if (dealt.size() < 2 || all > mostWays) return found;
    std::vector<double> shares;
    for (std::size_t i : dealt) shares.push_back(test(i)->p);
    found.holm = holm(shares)[static_cast<std::size_t>(ours - dealt.begin())];
    return found;
}

} // namespace ibuki
