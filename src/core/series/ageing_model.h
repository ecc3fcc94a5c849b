// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a mount's figure may change with a clock t (hours, load hours or cycles): y(t) = start + scale · g(t).
// Sources: docs/methods.md, "Drift", G.1.

#include <array>
#include <string_view>

namespace ibuki {

enum class AgeingModel { constant, linear, squareRoot, logarithmic, exponential, hyperbolic };

inline constexpr std::array ageingModels{AgeingModel::constant,    AgeingModel::linear,
                                         AgeingModel::squareRoot,  AgeingModel::logarithmic,
                                         AgeingModel::exponential, AgeingModel::hyperbolic};

/// "constant", "linear", "sqrt", "log", "exponential", "hyperbolic"
std::string_view ageingModelName(AgeingModel model);

/// It has a time constant τ beside its scale; its change ends.
bool endsSomewhere(AgeingModel model);

/// g(t): t, √t, ln(1 + t/1), 1 − e^{−t/τ}, t/(t + τ); 0 of a constant. tau counts where it ends somewhere.
double ageingShape(AgeingModel model, double t, double tau);
/// ∂g/∂τ; 0 where there is no τ.
double ageingShapeByTau(AgeingModel model, double t, double tau);

} // namespace ibuki
