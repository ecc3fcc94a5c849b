// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The two forms of one thermal impedance: Foster terms, which a fit yields and whose nodes are no places, and
// the Cauer ladder, whose nodes stand to ground and follow the heat (docs/methods.md H.10; Székely & Van
// Bien, Solid-State Electronics 31, 1988).

#include "core/physics/thermal_ladder.h"

#include <span>

namespace ibuki {

/// A term of Z(t) = Σ R (1 − e^{−t/τ}).
struct FosterTerm {
    double kPerW = 0; ///< > 0
    double tauS = 0;  ///< > 0
};

/// K/W after a step of 1 W that is t old.
double impedanceAt(std::span<const FosterTerm> terms, double timeS);

/// The ladder with the same impedance at its first node, first node first. The terms are the eigenvalues and
/// weights of a Jacobi matrix, which is rebuilt by Gragg & Harwood's rotations (Numer. Math. 44, 1984):
/// stable where the continued fraction of polynomials loses all digits. Throws InputError foster-passive
/// where terms are not above 0 or share a time constant: no passive ladder has them.
std::vector<LadderNode> cauerOf(std::vector<FosterTerm> terms);

} // namespace ibuki
