// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How many mounts a question needs, and what a given number would tell. Groups of equal size, one-way, equal
// spread between mounts: df = K(n − 1) (docs/methods.md, "How many mounts").

namespace ibuki {

enum class PlannedComparison { allPairs, reference, two };

struct SampleSizeInput {
    int groups = 2;           ///< K ≥ 2
    double mountSd = 0;       ///< σ between mounts, > 0
    double difference = 0;    ///< D: true difference of one given pair
    double power = 0.9;       ///< chance wanted, in (0, 1)
    double confidence = 0.95; ///< in (0.5, 1)
    PlannedComparison comparison = PlannedComparison::allPairs;
    double margin = 0; ///< > 0: show equivalence within it, D being the true difference; else 0
};

struct SampleSize {
    int mountsPerGroup = 0;
    double achievedPower = 0;
    double halfWidth = 0; ///< of the simultaneous interval of a pair, at this n
    int totalMounts = 0;
};

/// What n ≥ 2 mounts of each group would give.
SampleSize sampleSizeAt(const SampleSizeInput& input, int n);

/// The smallest n with at least the power asked. Throws InputError (plan-groups, plan-scatter,
/// plan-difference, plan-power, plan-confidence, plan-margin) for values that cannot be, and
/// (plan-unreachable) when `mostMounts` of each would not do.
SampleSize sampleSize(const SampleSizeInput& input);
inline constexpr int mostMounts = 10'000;

} // namespace ibuki
