// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Tests that ask little of few mounts (docs/methods.md, D.7, D.10).

#include "core/comparison/compare.h"

#include <optional>
#include <span>
#include <vector>

namespace ibuki {

/// Adjusted p of several tests, whatever their dependence (Holm 1979); in the order given.
std::vector<double> holm(std::span<const double> p);

/// Of the difference of two means under every way to deal the values out to the two groups: the share whose
/// difference is at least as large, and the smallest share that so many values can give.
struct PermutationTest {
    double p = 1;
    double smallest = 1;
};
/// Nothing where there are more than 200,000 ways, or a group is empty.
std::optional<PermutationTest> permutationTest(std::span<const double> a, std::span<const double> b);

/// Of one pair of a comparison, beside all of them.
struct PairPermutation {
    PermutationTest test;
    std::optional<double> holm; ///< held for all pairs together; nothing for one pair, or where that is dear
};
/// Nothing where a group was mounted once or at its limit, or the pair has too many ways. All pairs are dealt
/// out only where they have 200,000 ways together: who asks waits for it.
std::optional<PairPermutation> permutationOf(const Comparison& comparison, std::size_t pair);

} // namespace ibuki
