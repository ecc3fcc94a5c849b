// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/campaign_judge.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace ibuki {

CampaignJudge::CampaignJudge(std::size_t materials, double marginK, double confidence, bool blocks)
    : materials_(materials),
      margin_(marginK),
      blocks_(blocks),
      family_(PairFamily::allPairs(static_cast<int>(materials), 1 - confidence)) {}

CampaignJudge::Fit CampaignJudge::fitPlain(std::span<const CampaignMount> mounts) {
    means_.assign(materials_, 0);
    counts_.assign(materials_, 0);
    for (const CampaignMount& mount : mounts) {
        means_[mount.material] += mount.value;
        counts_[mount.material] += 1;
    }
    for (std::size_t i = 0; i < materials_; ++i) means_[i] /= counts_[i];
    double squares = 0;
    for (const CampaignMount& mount : mounts) {
        const double off = mount.value - means_[mount.material];
        squares += off * off;
    }
    const double df = static_cast<double>(mounts.size()) - static_cast<double>(materials_);
    return {df, df > 0 ? squares / df : 0};
}

std::size_t CampaignJudge::rootOf(std::size_t node) {
    while (parent_[node] != node) node = parent_[node] = parent_[parent_[node]];
    return node;
}

/// The inverse of the reduced information C = R − N K⁻¹ Nᵀ, with one material of each connected part held at
/// 0, by Gauss–Jordan; contrasts inside a part do not depend on which one.
bool CampaignJudge::invertReduced() {
    const std::size_t n = materials_;
    inverse_.assign(n * n, 0);
    for (std::size_t i = 0; i < n; ++i) inverse_[i * n + i] = 1;
    for (std::size_t i = 0; i < n; ++i)
        if (rootOf(i) == i)
            for (std::size_t j = 0; j < n; ++j) reduced_[i * n + j] = reduced_[j * n + i] = i == j ? 1 : 0;
    for (std::size_t column = 0; column < n; ++column) { // positive definite: no pivots are exchanged
        const double pivot = reduced_[column * n + column];
        if (!(pivot > 1e-12)) return false;
        for (std::size_t j = 0; j < n; ++j) {
            reduced_[column * n + j] /= pivot;
            inverse_[column * n + j] /= pivot;
        }
        for (std::size_t i = 0; i < n; ++i) {
            const double factor = i == column ? 0 : reduced_[i * n + column];
            for (std::size_t j = 0; factor != 0 && j < n; ++j) {
                reduced_[i * n + j] -= factor * reduced_[column * n + j];
                inverse_[i * n + j] -= factor * inverse_[column * n + j];
            }
        }
    }
    for (std::size_t i = 0; i < n; ++i)
        if (rootOf(i) == i) inverse_[i * n + i] = 0;
    return true;
}

CampaignJudge::Fit CampaignJudge::fitBlocks(std::span<const CampaignMount> mounts, std::size_t evenings) {
    const std::size_t n = materials_;
    incidence_.assign(n * evenings, 0);
    eveningCount_.assign(evenings, 0);
    eveningMean_.assign(evenings, 0);
    counts_.assign(n, 0);
    parent_.resize(n + evenings);
    std::iota(parent_.begin(), parent_.end(), std::size_t{0});
    std::vector<double>& load = means_; // Q: totals less the means of the evenings they stand in
    load.assign(n, 0);
    for (const CampaignMount& mount : mounts) {
        incidence_[mount.material * evenings + mount.evening] += 1;
        eveningCount_[mount.evening] += 1;
        eveningMean_[mount.evening] += mount.value;
        counts_[mount.material] += 1;
        load[mount.material] += mount.value;
        const std::size_t one = rootOf(mount.material), other = rootOf(n + mount.evening);
        parent_[std::max(one, other)] = std::min(one, other); // a material is the root of its part
    }
    for (std::size_t e = 0; e < evenings; ++e) eveningMean_[e] /= eveningCount_[e];
    reduced_.assign(n * n, 0);
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t e = 0; e < evenings; ++e) {
            const double here = incidence_[i * evenings + e];
            if (here == 0) continue;
            load[i] -= here * eveningMean_[e];
            for (std::size_t j = 0; j < n; ++j)
                reduced_[i * n + j] -= here * incidence_[j * evenings + e] / eveningCount_[e];
        }
    for (std::size_t i = 0; i < n; ++i) reduced_[i * n + i] += counts_[i];
    if (!invertReduced()) return {};
    const std::vector<double> q = load;
    for (std::size_t i = 0; i < n; ++i) {
        means_[i] = 0;
        for (std::size_t j = 0; j < n; ++j) means_[i] += inverse_[i * n + j] * q[j];
    }
    std::vector<double>& level = eveningMean_;
    std::fill(level.begin(), level.end(), 0);
    for (const CampaignMount& mount : mounts)
        level[mount.evening] += (mount.value - means_[mount.material]) / eveningCount_[mount.evening];
    double squares = 0;
    for (const CampaignMount& mount : mounts) {
        const double off = mount.value - means_[mount.material] - level[mount.evening];
        squares += off * off;
    }
    std::size_t parts = 0;
    for (std::size_t i = 0; i < n; ++i) parts += rootOf(i) == i ? 1 : 0;
    const double df = static_cast<double>(mounts.size()) - static_cast<double>(n + evenings - parts);
    return {df, df > 0 ? squares / df : 0};
}

bool CampaignJudge::judge(std::span<const CampaignMount> mounts, std::vector<JudgedPair>& pairs) {
    std::size_t evenings = 0;
    for (const CampaignMount& mount : mounts) evenings = std::max(evenings, mount.evening + 1);
    const Fit fit = blocks_ ? fitBlocks(mounts, evenings) : fitPlain(mounts);
    pairs.clear();
    if (!(fit.df > 0.5)) return false;
    const CriticalValues& critical = family_.critical(fit.df);
    for (std::size_t a = 0; a < materials_; ++a)
        for (std::size_t b = a + 1; b < materials_; ++b) {
            JudgedPair pair{a, b};
            pair.isReported = !blocks_ || rootOf(a) == rootOf(b);
            if (pair.isReported) {
                const std::size_t n = materials_;
                const double of = blocks_
                                      ? inverse_[a * n + a] + inverse_[b * n + b] - 2 * inverse_[a * n + b]
                                      : 1 / counts_[a] + 1 / counts_[b];
                const double se = std::sqrt(fit.variance * of);
                pair.difference = means_[a] - means_[b];
                pair.halfWidth = critical.different * se;
                pair.different = std::abs(pair.difference) > pair.halfWidth;
                pair.equivalent =
                    !pair.different && std::abs(pair.difference) + critical.equivalent * se < margin_;
            }
            pairs.push_back(pair);
        }
    return true;
}

} // namespace ibuki
