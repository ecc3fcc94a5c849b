// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What earlier studies tell of the scatter between mounts joins what the mounts tell: G. K. Smyth, Linear
// models and empirical Bayes methods, Stat. Appl. Genet. Mol. Biol. 3 (2004), art. 3,
// doi 10.2202/1544-6115.1027.

#include "core/base/flag.h"

#include <cmath>
#include <limits>

namespace ibuki {

/// Between mount means, from elsewhere.
struct KnownScatter {
    double sd = 0;                                       ///< in the unit of the values, > 0
    double df = std::numeric_limits<double>::infinity(); ///< how well it is known, > 0
    Message source = {};                                 ///< where it comes from
    bool isSound() const { return sd > 0 && df > 0; }
    bool isFinite() const { return std::isfinite(sd) && std::isfinite(df); }
};

/// Where both disagree the mounts alone count.
inline constexpr double priorConflictP = 0.01;

struct ModeratedScatter {
    double variance = 0;
    double df = 0;
    double dataSd = 0;
    double dataDf = 0; ///< 0: the mounts tell none
    KnownScatter prior;
    double conflictP = 1; ///< two-sided F test of both
    bool isConflict() const { return conflictP < priorConflictP; }
    bool isProvisional() const { return !isConflict() && prior.df > dataDf; } ///< the prior weighs more
};

/// s̃² = (d₀s₀² + d s²)/(d₀ + d) with d₀ + d degrees of freedom; s² with d where both disagree. df: d ≥ 0.
ModeratedScatter moderated(double variance, double df, const KnownScatter& prior);

/// What was done, with both standard deviations.
Flag scatterFlag(const ModeratedScatter& scatter);

} // namespace ibuki
