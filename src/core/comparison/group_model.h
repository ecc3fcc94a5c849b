// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Means of groups and how well each difference between them is known, by a normal model on mount means:
// groups alone; blocks as fixed effects and straight lines over the order of mounts and over a covariate
// beside them (adjusted means, averaged equally over the blocks); weights by REML where mounts have unequal
// numbers of runs; a scatter that is assumed where no group has two mounts (docs/methods.md, "Comparison",
// "Blocks", "Runs inside mounts").

#include "core/comparison/group_runs.h"
#include "core/comparison/pair_judge.h"
#include "core/models/anova.h"
#include "core/models/linear_model.h"
#include "core/models/nested_model.h"

namespace ibuki {

/// What an estimate would be known by with more mounts.
struct Later {
    double se = 0;
    double df = 0;
};

class GroupModel {
public:
    /// The groups are those that are tested; their order is that of the indexes below. Throws InputError when
    /// there are no degrees of freedom and no scatter is assumed or known from before.
    GroupModel(const std::vector<const GroupRuns*>& groups, const CompareOptions& options);

    double df() const { return df_; }             ///< infinite where the scatter is assumed as known
    double variance() const { return variance_; } ///< of one mount's mean
    bool isProvisional() const { return assumed_ || (moderated_ && moderated_->isProvisional()); }
    const std::optional<ModeratedScatter>& moderated() const { return moderated_; }
    bool isAdjusted() const { return adjusted_; }              ///< by blocks or lines
    const std::optional<FTest>& test() const { return test_; } ///< of the groups, after blocks and lines
    const std::optional<Drift>& drift() const { return drift_; }
    const std::optional<Drift>& covariate() const { return covariate_; }
    /// Of the covariate's slopes, where there are mounts enough.
    const std::optional<FTest>& equalSlopes() const { return equalSlopes_; }
    const std::optional<NestedFit>& nested() const { return nested_; }
    const std::vector<MountRunsSummary>& mounts() const { return mounts_; }
    const Columns& design() const { return design_; } ///< of full rank, a row a mount

    /// Nothing where blocks do not let it be told.
    std::optional<Estimate> mean(std::size_t group) const;
    std::optional<Estimate> difference(std::size_t a, std::size_t b) const; ///< mean(a) − mean(b)
    /// Correlation of the differences a − to and b − to, which can be told, with m more mounts of every
    /// group.
    double correlation(std::size_t a, std::size_t b, std::size_t to, int m = 0) const;
    /// a − b with m ≥ 1 more mounts of every group (with blocks: m more whole blocks), the scatter being as
    /// it is.
    Later later(std::size_t a, std::size_t b, int m) const;

private:
    void addRows(const std::vector<const GroupRuns*>& groups);
    void layDesign(const std::vector<const GroupRuns*>& groups, const CompareOptions& options);
    void chooseScatter(const CompareOptions& options);
    void testGroups(const LinearModel& model);
    void fitLines(const LinearModel& model, const CompareOptions& options);
    std::optional<Drift> lineOf(const LinearModel& model, std::size_t column, double confidence) const;
    void testSlopes(const LinearModel& model);
    void keepInformation();
    const Columns& unscaledWith(int m) const;

    std::size_t groups_ = 0;
    bool adjusted_ = false;
    bool blocked_ = false; ///< more than one block
    bool assumed_ = false;
    std::vector<MountRunsSummary> mounts_;
    double origin_ = 0;
    std::vector<double> y_;       ///< mount means about the origin
    std::vector<double> weights_; ///< 1, or the mean variance over the mount's own
    Columns all_{0, 0};
    Columns design_{0, 0};
    Columns contrasts_{0, 0};    ///< of the groups' means: columns of the model × groups
    std::vector<double> values_; ///< of the groups' means, about the origin
    Columns covariance_{0, 0};   ///< of them, × variance
    Columns untold_{0, 0};       ///< of their contrasts
    double variance_ = 0;
    double df_ = 0;
    std::optional<ModeratedScatter> moderated_;
    std::optional<FTest> test_;
    std::optional<Drift> drift_;
    std::optional<Drift> covariate_;
    std::optional<FTest> equalSlopes_;
    std::optional<NestedFit> nested_;
    Columns information_{0, 0};
    mutable std::vector<Columns> later_; ///< its inverses with 1, 2, … more mounts
};

} // namespace ibuki
