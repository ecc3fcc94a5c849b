// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/few_mounts.h"

#include "core/comparison/dealing.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace ibuki {
namespace {

constexpr double mostWays = 200'000;
constexpr double sumTie = 1e-12; ///< of the values' spread

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
    if (a.empty() || b.empty() || waysToDeal(n, a.size()) > mostWays) return std::nullopt;
    std::vector<double> values(a.begin(), a.end());
    values.insert(values.end(), b.begin(), b.end());
    const double origin = values.front(); // an offset costs no digits
    for (double& value : values) value -= origin;
    const double total = std::accumulate(values.begin(), values.end(), 0.0);
    const auto [lo, hi] = std::minmax_element(values.begin(), values.end());
    // The difference of means grows with how far the first group's sum is from its share of the total.
    const double share = total * static_cast<double>(a.size()) / static_cast<double>(n);
    const double slack = sumTie * static_cast<double>(n) * std::max(*hi - *lo, 1e-300);
    const double seen = std::abs(
        std::accumulate(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(a.size()), 0.0) - share);
    std::vector<std::size_t> first(a.size());
    std::iota(first.begin(), first.end(), std::size_t{0});
    double count = 0;
    double extreme = 0;
    do {
        double sum = 0;
        for (std::size_t i : first) sum += values[i];
        extreme += std::abs(sum - share) >= seen - slack ? 1 : 0;
        ++count;
    } while (nextDeal(first, n));
    // Groups of one size can change places: two ways are the most extreme then.
    return PermutationTest{extreme / count, (a.size() == b.size() ? 2 : 1) / count};
}

namespace {

bool canBeDealt(const GroupSummary& group) { return group.mounts > 1 && group.censoredMounts == 0; }

} // namespace

std::optional<PairPermutation> permutationOf(const Comparison& comparison, std::size_t pair) {
    std::vector<std::size_t> dealt;
    double all = 0;
    for (std::size_t i = 0; i < comparison.pairs.size(); ++i) {
        const GroupSummary& a = comparison.groups[comparison.pairs[i].a];
        const GroupSummary& b = comparison.groups[comparison.pairs[i].b];
        if (!canBeDealt(a) || !canBeDealt(b)) continue;
        dealt.push_back(i);
        all += waysToDeal(a.mountMeans.size() + b.mountMeans.size(), a.mountMeans.size());
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
