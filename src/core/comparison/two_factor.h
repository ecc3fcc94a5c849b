// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Two factors on mount means, by least squares: y = cell + block + e. Tests of type II (each main effect
// after the other, the interaction after both), all by the residual of the full model; pairs of the first
// factor inside each level of the second, and of marginal means that average equally over the second's levels
// (Searle 1971; docs/methods.md, "Two factors").

#include "core/comparison/compare.h"

namespace ibuki {

struct TwoFactorRun {
    RunValue run; ///< its group: the level of the first factor; mounts are told apart inside a cell
    Named second;
};

struct FactorCell {
    std::size_t first = 0;
    std::size_t second = 0;
    int mounts = 0;
    std::optional<double> mean; ///< of mount means; nothing in an empty cell
};

struct PairWithin {
    std::size_t second = 0;
    PairComparison pair; ///< a and b: levels of the first factor
};

struct TwoFactors {
    std::vector<Named> firstLevels; ///< in order of first appearance
    std::vector<Named> secondLevels;
    std::vector<FactorCell> cells;    ///< every combination, level by level of the first
    std::optional<FTest> interaction; ///< nothing where it has no degree of freedom
    std::optional<FTest> first;
    std::optional<FTest> second;
    double sd = 0; ///< of mount means, from the full model
    double df = 0;
    std::optional<ModeratedScatter> moderated; ///< with a prior: how it joined
    std::vector<PairWithin> within;
    std::vector<PairComparison> marginal;
    const FactorCell& cell(std::size_t firstLevel, std::size_t secondLevel) const {
        return cells[firstLevel * secondLevels.size() + secondLevel];
    }
};

/// options: margin, confidence, blocks, prior. Throws InputError for a factor of one level or, without a
/// prior, no residual degrees of freedom.
TwoFactors compareTwoFactors(const std::vector<TwoFactorRun>& runs, const CompareOptions& options);
/// The same of a table; seconds: the second factor's level of each run.
TwoFactors compareTwoFactors(const std::vector<TableRun>& runs, const std::vector<std::string>& seconds,
                             const CompareOptions& options);

} // namespace ibuki
