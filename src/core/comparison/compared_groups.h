// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The two ways to judge pairs of groups without limit-bound mounts: with one spread for all, or with each
// group's own. Both are asked pair by pair; what all pairs share is kept between.

#include "core/comparison/group_model.h"

#include <algorithm>
#include <map>

namespace ibuki {

/// Groups with one spread, or with blocks and order beside them. reference: index among the tested.
class PooledGroups {
public:
    PooledGroups(const std::vector<const GroupRuns*>& tested, std::optional<std::size_t> reference,
                 int compared, const CompareOptions& options)
        : model_(tested, options), options_(options), reference_(reference), compared_(compared) {
        for (std::size_t i = 0; reference && i < tested.size(); ++i)
            if (i != *reference && model_.difference(i, *reference)) against_.push_back(i);
    }

    const GroupModel& model() const { return model_; }

    PairComparison compare(std::size_t a, std::size_t b) {
        PairComparison pair;
        PairFamily& now = family(0);
        pair.adjustment = now.adjustment();
        pair.provisional = model_.isProvisional();
        const auto found = model_.difference(a, b);
        if (!found) return pair;
        judgePair(pair, *found, model_.df(), now, options_);
        if (pair.verdict == Verdict::unresolved)
            addFurtherMounts(pair, options_, [&](int m) {
                const Later later = model_.later(a, b, m);
                return std::pair{later.se, family(m).critical(later.df)};
            });
        return pair;
    }

private:
    /// Against a reference the correlation is another with m more mounts of each group.
    PairFamily& family(int m) {
        const int key = reference_ ? m : 0;
        const auto at = families_.find(key);
        return at != families_.end() ? at->second : families_.emplace(key, make(key)).first->second;
    }

    PairFamily make(int m) const {
        const double alpha = 1 - options_.confidence;
        if (!reference_) return PairFamily::allPairs(compared_, alpha);
        Columns correlation(against_.size(), against_.size());
        for (std::size_t i = 0; i < against_.size(); ++i)
            for (std::size_t j = 0; j < against_.size(); ++j)
                correlation[i][j] = i == j ? 1 : model_.correlation(against_[i], against_[j], *reference_, m);
        return PairFamily::againstReference(correlation, alpha);
    }

    GroupModel model_;
    const CompareOptions& options_;
    std::optional<std::size_t> reference_;
    int compared_;
    std::vector<std::size_t> against_;
    std::map<int, PairFamily> families_;
};

/// Groups with each its own spread (Welch; Games & Howell 1976).
class OwnSpreadGroups {
public:
    /// Groups of one mount have no spread and no tests: the family is that of the others. fitted: groups
    /// beside the tested ones that are compared by maximum likelihood.
    OwnSpreadGroups(const std::vector<const GroupSummary*>& tested, std::optional<std::size_t> reference,
                    std::size_t fitted, const CompareOptions& options)
        : tested_(tested), options_(options), family_(make(reference, fitted)) {}

    PairComparison compare(std::size_t a, std::size_t b) {
        PairComparison pair;
        pair.adjustment = family_.adjustment();
        const GroupSummary& first = *tested_[a];
        const GroupSummary& second = *tested_[b];
        if (!first.sd || !second.sd) return pair;
        const Later now = knownBy(first, second, 0);
        judgePair(pair, {*first.mean - *second.mean, now.se}, now.df, family_, options_);
        if (pair.verdict == Verdict::unresolved)
            addFurtherMounts(pair, options_, [&](int m) {
                const Later later = knownBy(first, second, m);
                return std::pair{later.se, family_.roughCritical(later.df)};
            });
        return pair;
    }

private:
    /// Standard error with the degrees of freedom of Welch and Satterthwaite, with m more mounts of each.
    static Later knownBy(const GroupSummary& a, const GroupSummary& b, int m) {
        const double va = *a.sd * *a.sd / (a.mounts + m);
        const double vb = *b.sd * *b.sd / (b.mounts + m);
        const double below = va * va / (a.mounts + m - 1) + vb * vb / (b.mounts + m - 1);
        const double all = a.mounts + b.mounts + 2 * m - 2;
        return {std::sqrt(va + vb), below > 0 ? (va + vb) * (va + vb) / below : all};
    }

    PairFamily make(std::optional<std::size_t> reference, std::size_t fitted) const {
        const double alpha = 1 - options_.confidence;
        if (!reference) {
            const auto spread = std::count_if(tested_.begin(), tested_.end(), [](const GroupSummary* group) {
                return group->sd.has_value();
            });
            const auto k = static_cast<int>(fitted) + static_cast<int>(spread);
            return PairFamily::allPairs(std::max(2, k), alpha, true);
        }
        std::vector<double> variances; // of the means that are held against the reference's
        const auto variance = [](const GroupSummary& group) { return *group.sd * *group.sd / group.mounts; };
        for (std::size_t i = 0; i < tested_.size(); ++i)
            if (i != *reference && tested_[i]->sd) variances.push_back(variance(*tested_[i]));
        const double own = tested_[*reference]->sd ? variance(*tested_[*reference]) : 0;
        Columns correlation(variances.size(), variances.size());
        for (std::size_t i = 0; i < variances.size(); ++i)
            for (std::size_t j = 0; j < variances.size(); ++j)
                correlation[i][j] = i == j ? 1 : own / std::sqrt((variances[i] + own) * (variances[j] + own));
        return PairFamily::againstReference(correlation, alpha);
    }

    std::vector<const GroupSummary*> tested_;
    const CompareOptions& options_;
    PairFamily family_;
};

} // namespace ibuki
