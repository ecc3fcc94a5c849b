// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What earlier studies tell of the scatter between mounts joins what the mounts tell: G. K. Smyth, Linear
// models and empirical Bayes methods, Stat. Appl. Genet. Mol. Biol. 3 (2004), art. 3,
// doi 10.2202/1544-6115.1027.

#include "core/base/flag.h"

namespace ibuki {

/// Between mount means, from studies that are finished.
struct PriorScatter {
    double sd = 0; ///< in the unit of the values, > 0
    double df = 0; ///< how well it is known, > 0
    bool operator==(const PriorScatter&) const = default;
};

bool isSound(const PriorScatter& prior); ///< above 0 and finite

/// Where both disagree the mounts alone count.
inline constexpr double priorConflictP = 0.01;

struct ModeratedScatter {
    double variance = 0;
    double df = 0;
    double dataSd = 0;
    double dataDf = 0; ///< 0: the mounts tell none
    PriorScatter prior;
    double conflictP = 1; ///< two-sided F test of both
    bool isConflict() const { return conflictP < priorConflictP; }
    bool isProvisional() const { return !isConflict() && prior.df > dataDf; } ///< the prior weighs more
};

/// s̃² = (d₀s₀² + d s²)/(d₀ + d) with d₀ + d degrees of freedom; s² with d where both disagree. df: d ≥ 0.
ModeratedScatter moderated(double variance, double df, const PriorScatter& prior);

/// What was done, with both standard deviations.
Flag scatterFlag(const ModeratedScatter& scatter);

} // namespace ibuki
