// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Exponential approach x(t) = x_∞ − A e^{−(t−t₀)/τ} by variable projection: for fixed τ the model is linear
// in (x_∞, A) and solved by QR; RSS is minimised over log τ on [Δt, 10 (t_n − t₀)] (Golub & Pereyra 1973).
// Model: one dominant time constant in the fitted part, constant power, independent residuals; the caller
// inflates the variance (`varianceInflation`) when residuals are correlated.

#include "core/distributions/interval.h"

#include <optional>
#include <span>

namespace ibuki {

struct TailFit {
    double asymptote = 0;
    double amplitude = 0;
    double tau = 0; ///< in the unit of t
    double rss = 0;
    bool identified = false;    ///< τ inside its bounds and the amplitude told from nothing
    Interval asymptoteInterval; ///< profile interval (the asymptote itself when not identified), Bates &
                                ///< Watts 1988, at the confidence asked
    double remaining = 0;       ///< asymptote − fitted value at the last t
    double remainingStandardError = 0;
    double df = 0; ///< n − 3
};

/// Nothing with fewer than 6 points or without spread in t. Confidence in (0, 1).
std::optional<TailFit> fitTail(std::span<const double> t, std::span<const double> x, double confidence = 0.95,
                               double varianceInflation = 1.0);

/// Same, with the inflation taken from the residuals' integrated autocorrelation time.
std::optional<TailFit> fitCorrelatedTail(std::span<const double> t, std::span<const double> x,
                                         double confidence = 0.95);

} // namespace ibuki
