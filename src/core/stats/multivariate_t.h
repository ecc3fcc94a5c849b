// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// P(|T_i| ≤ d for all i) of a multivariate t with any correlation (Genz & Bretz 2002): the integral over the
// cube by a lattice of Richtmyer, its first coordinate the common scale. Only where no closer form applies:
// incomplete blocks against a reference. Error below 1e-4 for up to 20 comparisons.

#include "core/stats/least_squares.h"

namespace ibuki {

/// correlation: m × m, positive semidefinite. ν may be infinite.
double multivariateTCdf(double d, const Columns& correlation, double nu);
double multivariateTQuantile(double p, const Columns& correlation, double nu); ///< 0.5 < p < 1

} // namespace ibuki
