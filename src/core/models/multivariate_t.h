// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// P(|T_i| ≤ d for all i) of a multivariate t with any correlation, where no closer form applies: incomplete
// blocks against a reference. Of the normal behind it each variable is taken given those before (Genz &
// Bretz 2002): up to four comparisons by nested Gauss–Legendre rules, error below 1e-8 in P; more, or such
// as follow from each other, by a lattice of Richtmyer, below 1e-4. The scale is integrated apart
// (joint_limit.h), since few degrees of freedom make it the hardest part.

#include "core/models/joint_limit.h"
#include "core/models/least_squares.h"

namespace ibuki {

/// correlation: m × m, positive semidefinite.
JointLimit multivariateFamily(const Columns& correlation);

/// ν may be infinite.
double multivariateTCdf(double d, const Columns& correlation, double nu);
double multivariateTQuantile(double p, const Columns& correlation, double nu); ///< 0.5 < p < 1

} // namespace ibuki
