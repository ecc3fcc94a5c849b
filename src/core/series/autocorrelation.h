// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Standard errors of correlated samples. Never σ/√n of a logger's readings.

#include "core/distributions/interval.h"

#include <optional>
#include <span>
#include <vector>

namespace ibuki {

/// r_lag = Σ(x_t−x̄)(x_{t+lag}−x̄)/Σ(x_t−x̄)²; 0 for constant data or fewer than lag + 1 values.
double autocorrelation(std::span<const double> x, std::size_t lag);

/// Integrated autocorrelation time 1 + 2 Σ_{k≤M} r_k with the window M ≥ 5 τ(M) (Madras & Sokal 1988),
/// at least 1 (negative correlation is not credited).
double integratedAutocorrelationTime(std::span<const double> x);

/// Correlated noise as residuals of a fit tell it, what the fit took of it given back.
struct NoiseLevel {
    double sd = 0;  ///< σ² = RSS/(n − a), a = Σ_j Σ_{|k|≤M} r_k c_j(k)
    double tau = 1; ///< τ_int (1 − a/n)/(1 − l), l = Σ_j Σ_{|k|≤M} c_j(k)/n; samples
    double df = 0;  ///< n/(2M + 1), since Var τ_int = 2(2M + 1)/n τ_int² (Madras & Sokal 1988)
};

/// Functions that a fit could follow, sampled like the residuals. c_j(k) is the autocorrelation of the j-th
/// after they are made orthonormal: a function that is slow all along takes (2M + 1)/n of the slow noise, one
/// that soon fades less.
using FittedFunctions = std::vector<std::vector<double>>;

/// Nothing for fewer than 8 residuals or none that vary.
std::optional<NoiseLevel> noiseLevel(std::span<const double> residuals, FittedFunctions fitted);

/// Of a mean over n samples with such noise: σ √(τ/n (1 − τ/2n)) t/z, so that ± 1.96 of it hold the truth in
/// 95 % although τ and σ are themselves estimates (t: Student's 0.975 quantile at df, z: the normal one).
double meanStandardError(const NoiseLevel& noise, std::size_t n);

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
