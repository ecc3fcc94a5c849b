// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/censored_groups.h"

#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();

std::size_t placeOf(const std::vector<std::size_t>& groups, std::size_t group) {
    return static_cast<std::size_t>(std::find(groups.begin(), groups.end(), group) - groups.begin());
}

} // namespace

CensoredGroups::CensoredGroups(const std::vector<const GroupSummary*>& groups,
                               const std::vector<const GroupRuns*>& runs) {
    for (std::size_t g = 0; g < groups.size(); ++g) {
        means_.push_back(groups[g]->mountMeans);
        bound_.push_back(groups[g]->censoredMounts > 0);
        std::vector<bool> limits;
        for (const MountRuns& mount : runs[g]->mounts) limits.push_back(mount.censored);
        limits_.push_back(std::move(limits));
    }
}

/// Those named with a mean each; of the others only what they tell of the spread.
CensoredSample CensoredGroups::sampleWith(const std::vector<std::size_t>& groups) const {
    CensoredSample sample;
    sample.groups = groups.size();
    for (std::size_t i = 0; i < groups.size(); ++i)
        for (std::size_t m = 0; m < means_[groups[i]].size(); ++m) {
            sample.y.push_back(means_[groups[i]][m]);
            sample.bound.push_back(limits_[groups[i]][m]);
            sample.group.push_back(i);
        }
    for (std::size_t g = 0; g < means_.size(); ++g) {
        if (std::find(groups.begin(), groups.end(), g) != groups.end()) continue;
        sample.restValues += static_cast<double>(means_[g].size());
        sample.restSs += sumOfSquares(means_[g]);
    }
    return sample;
}

std::vector<std::size_t> CensoredGroups::boundWith(std::size_t a, std::optional<std::size_t> b) const {
    std::vector<std::size_t> groups;
    for (std::size_t g = 0; g < bound_.size(); ++g)
        if (bound_[g] || g == a || g == b) groups.push_back(g);
    return groups;
}

double CensoredGroups::df() const {
    double all = 0;
    for (const auto& means : means_) all += static_cast<double>(means.size());
    return all - static_cast<double>(means_.size());
}

std::optional<double> CensoredGroups::sd() const {
    const auto first =
        static_cast<std::size_t>(std::find(bound_.begin(), bound_.end(), true) - bound_.begin());
    const auto fit = fitCensored(sampleWith(boundWith(first, {})));
    const double freedom = df();
    if (!fit || !(freedom > 0)) return std::nullopt;
    return fit->sigma * std::sqrt((freedom + static_cast<double>(means_.size())) / freedom);
}

void CensoredGroups::tell(std::size_t group, GroupSummary& summary, double confidence) const {
    const auto groups = boundWith(group, {});
    const CensoredSample sample = sampleWith(groups);
    const auto fit = fitCensored(sample);
    if (!fit) return;
    const std::size_t at = placeOf(groups, group);
    const double z = studentQuantile(0.5 + confidence / 2, infinite);
    summary.mean = summary.adjusted = fit->means[at];
    summary.se = std::sqrt(fit->covariance[at][at]);
    summary.ci = profileInterval(sample, *fit, at, {}, z * z);
}

PairComparison CensoredGroups::compare(std::size_t a, std::size_t b, PairFamily& family,
                                       double margin) const {
    PairComparison pair;
    pair.adjustment = family.adjustment();
    const auto groups = boundWith(a, b);
    const CensoredSample sample = sampleWith(groups);
    const auto fit = fitCensored(sample);
    if (!fit) return pair;
    const std::size_t first = placeOf(groups, a);
    const std::size_t second = placeOf(groups, b);
    const Columns& c = fit->covariance;
    pair.difference = fit->means[first] - fit->means[second];
    pair.se = std::sqrt(c[first][first] + c[second][second] - 2 * c[first][second]);
    const double critical = family.critical(infinite).different;
    pair.ci = profileInterval(sample, *fit, first, second, critical * critical);
    pair.pAdjusted = family.adjustedP(std::sqrt(likelihoodRatio(sample, *fit, first, second, 0)), infinite);
    // What reached the limit may truly be hotter than was seen, so it is never shown to be the cooler one.
    const bool hotterA = pair.ci->lo > 0 && !bound_[b];
    const bool hotterB = pair.ci->hi < 0 && !bound_[a];
    if (hotterA || hotterB) pair.verdict = Verdict::different;
    if ((hotterA && pair.ci->lo > margin) || (hotterB && pair.ci->hi < -margin))
        pair.size = DifferenceSize::beyondMargin;
    return pair;
}

} // namespace ibuki
