// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a mount's figure may change with a clock t (hours, load hours or cycles): y(t) = start + scale · g(t).
// Sources: docs/methods.md, "Drift", G.1.

#include <array>
#include <string_view>

namespace ibuki {

enum class DriftModel { constant, linear, squareRoot, logarithmic, exponential, hyperbolic };

inline constexpr std::array driftModels{DriftModel::constant,    DriftModel::linear,
                                        DriftModel::squareRoot,  DriftModel::logarithmic,
                                        DriftModel::exponential, DriftModel::hyperbolic};

/// "constant", "linear", "sqrt", "log", "exponential", "hyperbolic"
std::string_view driftModelName(DriftModel model);

/// It has a time constant τ beside its scale; its change ends.
bool endsSomewhere(DriftModel model);

/// g(t): t, √t, ln(1 + t/1), 1 − e^{−t/τ}, t/(t + τ); 0 of a constant. tau counts where it ends somewhere.
double driftShape(DriftModel model, double t, double tau);
/// ∂g/∂τ; 0 where there is no τ.
double driftShapeByTau(DriftModel model, double t, double tau);

} // namespace ibuki
