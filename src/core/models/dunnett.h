// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Distribution of the largest of m comparisons with one reference group (Dunnett 1955, 1964), one-way, equal
// spread: with λ_i = √(n_i/(n_i + n_0)),
//   P(d) = ∫ f_ν(s) ∫ φ(z) Π_i [Φ((λ_i z + d s)/√(1−λ_i²)) − Φ((λ_i z − d s)/√(1−λ_i²))] dz ds,
// both by trapezoids, the inner one by adaptive Gauss–Kronrod where the product is steep, that is for n_i far
// above n_0 (docs/methods.md, "Dunnett"). One-sided: without the second Φ. Error below 1e-10 in P for
// n_i/n_0 from 0.25 to 1e6 and m ≤ 20.

#include "core/models/joint_limit.h"

#include <span>

namespace ibuki {

enum class Sides { one, two };

/// n: mounts of the groups compared, n0: of the reference, all > 0; ν > 0 degrees of freedom, may be
/// infinite.
double dunnettCdf(double d, std::span<const double> n, double n0, double nu, Sides sides = Sides::two);

/// Two-sided, of one family for many d and ν.
JointLimit dunnettFamily(std::span<const double> n, double n0);

/// d with P(d) = p, 0.5 < p < 1.
double dunnettQuantile(double p, std::span<const double> n, double n0, double nu, Sides sides = Sides::two);

} // namespace ibuki
