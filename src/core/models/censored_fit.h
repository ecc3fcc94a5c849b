// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Normal linear model of which some values are only known to be at least so much (Tobin 1958;
// docs/methods.md, "Limit-bound"): ℓ = Σ_seen [ln φ((y − xβ)/σ) − ln σ] + Σ_bound ln Φ(−(c − xβ)/σ), by
// Newton in β/σ and 1/σ, in which it is concave (Olsen 1978).

#include "core/distributions/interval.h"
#include "core/models/least_squares.h"

#include <optional>
#include <vector>

namespace ibuki {

/// Values with their groups; what is given in `rest` is of other groups without bound values.
struct CensoredSample {
    std::vector<double> y;
    std::vector<bool> bound;        ///< y is the least that it can be
    std::vector<std::size_t> group; ///< of each value, 0 … groups − 1
    std::size_t groups = 0;
    double restValues = 0; ///< how many more values tell σ
    double restSs = 0;     ///< their squared deviations from their groups' means
};

struct CensoredFit {
    std::vector<double> means; ///< one a group
    double sigma = 0;          ///< maximum likelihood, divisor N
    double logLikelihood = 0;
    Columns covariance{0, 0}; ///< of the means, from the observed information
};

/// Nothing when a group has no seen value, or nothing scatters.
std::optional<CensoredFit> fitCensored(const CensoredSample& sample);

/// 2(ℓ̂ − ℓ) where mean(a) − mean(b) = difference; without b, where mean(a) = difference.
double likelihoodRatio(const CensoredSample& sample, const CensoredFit& fit, std::size_t a,
                       std::optional<std::size_t> b, double difference);

/// Where that ratio is at most `level`.
Interval profileInterval(const CensoredSample& sample, const CensoredFit& fit, std::size_t a,
                         std::optional<std::size_t> b, double level);

} // namespace ibuki
