// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Quantiles of distributions that are only known by their integral: the bracket grows until it holds the
// root, then TOMS 748 to 1e-11 relative.

#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <cstdint>

namespace ibuki {

/// Root of a growing f with f(lo) ≤ 0, 0 < lo < hi.
template <class Function> double rootOfGrowing(Function&& f, double lo, double hi) {
    while (f(hi) < 0) {
        lo = hi;
        hi *= 1.5;
    }
    std::uintmax_t iterations = 80;
    const auto [a, b] = boost::math::tools::toms748_solve(
        f, lo, hi, [](double x, double y) { return std::abs(x - y) <= 1e-11 * std::abs(x); }, iterations);
    return 0.5 * (a + b);
}

} // namespace ibuki
