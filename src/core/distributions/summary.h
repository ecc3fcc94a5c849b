// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Small summaries of a sample. Inputs are never reordered. Every function takes finite values; what it does
// with none or one is said beside it.

#include <optional>
#include <span>

namespace ibuki {

double mean(std::span<const double> x);   ///< two-pass about the first value; NaN when empty
double median(std::span<const double> x); ///< NaN when empty

/// Sample standard deviation (divisor n − 1), two-pass; nothing for n < 2.
std::optional<double> sampleSd(std::span<const double> x);

/// Quantile of type 7 (Hyndman & Fan 1996); p in [0, 1]; NaN when empty.
double quantile(std::span<const double> x, double p);

/// Sum of squared deviations from the mean, two-pass with the compensation term of Chan, Golub & LeVeque
/// 1983.
double sumOfSquares(std::span<const double> x);

/// Highest less lowest of what is a number; 0 without any.
double rangeOf(std::span<const double> x);

} // namespace ibuki
