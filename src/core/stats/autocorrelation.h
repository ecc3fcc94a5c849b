// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Standard errors of correlated samples. Never σ/√n of a logger's readings.

#include "core/stats/interval.h"

#include <optional>
#include <span>

namespace ibuki {

/// r_lag = Σ(x_t−x̄)(x_{t+lag}−x̄)/Σ(x_t−x̄)²; 0 for constant data or fewer than lag + 1 values.
double autocorrelation(std::span<const double> x, std::size_t lag);

/// Integrated autocorrelation time 1 + 2 Σ_{k≤M} r_k with the window M ≥ 5 τ(M) (Madras & Sokal 1988),
/// at least 1 (negative correlation is not credited).
double integratedAutocorrelationTime(std::span<const double> x);

/// s √(τ/n); nothing for n < 2.
std::optional<double> meanStandardError(std::span<const double> x);

/// Straight line through (t, x) with the lag-1 adjusted standard error and degrees of freedom of
/// Santer et al. 2000: n_eff = n (1−r₁)/(1+r₁), r₁ clipped to [0, 0.99].
struct SlopeFit {
    double slope = 0; ///< units of x per unit of t
    double standardError = 0;
    double effectiveN = 0;
    double df = 0;

    Interval interval(double confidence) const; ///< two-sided Student interval
};

/// Nothing when n_eff < 6 or t does not vary: the data cannot tell.
std::optional<SlopeFit> fitSlope(std::span<const double> t, std::span<const double> x);

} // namespace ibuki
