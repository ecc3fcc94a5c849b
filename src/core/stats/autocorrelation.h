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

/// Correlated noise as residuals of a fit tell it, its small-sample biases taken out.
struct NoiseLevel {
    double sd = 0;  ///< σ² = RSS / (n − p τ)
    double tau = 1; ///< integrated autocorrelation time, samples, raised by 1 + p (2M+1)/n
    double df = 0;  ///< n/M − p: of a spectral estimate at frequency 0 with a lag window of M
};

/// p: parameters of the fit. Nothing for fewer than 8 residuals or none that vary.
std::optional<NoiseLevel> noiseLevel(std::span<const double> residuals, int parameters);

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
