// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One-way analyses of groups of independent values. Model: y_ij = μ_i + e_ij, e normal and independent; equal
// spread for `oneWayAnova`, own spread for `welchAnova`. Sources: Fisher; Welch 1951; Brown & Forsythe 1974.

#include <optional>
#include <vector>

namespace ibuki {

using Groups = std::vector<std::vector<double>>;

struct FTest {
    double f = 0;
    double df1 = 0;
    double df2 = 0;
    double p = 0;
};

/// With its p; f may be infinite (p 0).
FTest fTest(double f, double df1, double df2);

struct OneWayAnova {
    FTest test;
    double betweenSs = 0;
    double withinSs = 0;
    double pooledVariance = 0; ///< withinSs / df2
};

/// Nothing with fewer than two groups or no degrees of freedom inside them. Values are first taken about a
/// common one and sums of squares are two-pass, so that a large offset costs no digits.
std::optional<OneWayAnova> oneWayAnova(const Groups& groups);

/// Nothing when a group has fewer than two values or no spread: its weight would be infinite.
std::optional<FTest> welchAnova(const Groups& groups);

/// Equal-spread test: one-way analysis of |y − median of its group| (JASA 69:364).
std::optional<FTest> brownForsytheSpread(const Groups& groups);

} // namespace ibuki
