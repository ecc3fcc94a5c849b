// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pairs of which a group reached the temperature limit in some of its mounts: by maximum likelihood with one
// spread for all groups, intervals and p from the profile likelihood (docs/methods.md, "Limit-bound"). Such a
// group can be shown to run hotter, never cooler, never the same.

#include "core/comparison/group_runs.h"
#include "core/comparison/pair_family.h"
#include "core/models/censored_fit.h"

namespace ibuki {

constexpr int leastSeenMounts = 3; ///< of a limit-bound group that is fitted

class CensoredGroups {
public:
    /// groups: all that are compared, by mount means; their order is that of the indexes below. Those without
    /// limit-bound mounts tell the spread.
    CensoredGroups(const std::vector<const GroupSummary*>& groups, const std::vector<const GroupRuns*>& runs);

    bool isCensored(std::size_t group) const { return bound_[group]; }
    /// Of the spread: σ̂√(N/(N − p)); nothing where nothing scatters.
    std::optional<double> sd() const;
    double df() const;
    /// Mean, standard error and interval into the summary; as it was where there is no fit.
    void tell(std::size_t group, GroupSummary& summary, double confidence) const;
    PairComparison compare(std::size_t a, std::size_t b, PairFamily& family, double margin) const;

private:
    CensoredSample sampleWith(const std::vector<std::size_t>& groups) const;
    std::vector<std::size_t> boundWith(std::size_t a, std::optional<std::size_t> b) const;

    std::vector<std::vector<double>> means_; ///< of mounts
    std::vector<std::vector<bool>> limits_;
    std::vector<bool> bound_;
};

} // namespace ibuki
