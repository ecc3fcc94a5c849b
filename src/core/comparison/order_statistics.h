// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What chance alone does to the best of several, and to the spread of a ranking (Harter 1961;
// docs/methods.md, D.9, D.16).

#include "core/comparison/compare.h"

namespace ibuki {

/// E[max − min] of k independent standard normals, k ≥ 1: d₂(k).
double expectedRange(int k);
/// −E[min] of n independent standard normals, n ≥ 1: how far the best of n lies below the mean.
double expectedLowest(int n);

/// By how much the means of identical materials would spread with these numbers of mounts and this scatter:
/// d₂(k)·s/√n, n the harmonic mean of the mounts. Nothing for fewer than three groups or without a scatter.
std::optional<double> spreadOfIdentical(const Comparison& comparison);

/// For each group, in order: the chance that it is truly the best, from its mean and the pooled scatter
/// (reference prior); 20,000 seeded draws where blocks or lines make the means hang together. Nothing for
/// groups that have no mean of their own, with own spreads, where a difference cannot be told, or for more
/// than 40 groups.
std::vector<std::optional<double>> chancesOfBest(const Comparison& comparison);

/// What lies between the best of n mounts and their mean by chance alone: c_n·s_p.
struct BestOf {
    int mounts = 0;
    double bias = 0; ///< in the unit of the values
};
/// Nothing where the groups have unequal numbers of mounts (more mounts would win without being better),
/// fewer than two, or no common scatter.
std::optional<BestOf> bestOf(const Comparison& comparison);

} // namespace ibuki
