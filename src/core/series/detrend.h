// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is left of a settling series after its own smooth course, for judging its noise.

#include "core/series/autocorrelation.h"

namespace ibuki {

struct Residuals {
    std::vector<double> values; ///< of finite samples, in order; means of `block` neighbours
    FittedFunctions course;     ///< that were taken out
    std::size_t block = 1;
};

/// Takes out a constant with, where tau (unit of t) is known, e^{−t/τ} and the faster e^{−4t/τ}, else a
/// straight line, by least squares. Long series are gathered into at most about 2,000 block means first.
Residuals detrended(std::span<const double> t, std::span<const double> x, std::optional<double> tau);

} // namespace ibuki
