// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/studentized_range.h"

#include "core/stats/growing_root.h"

#include <algorithm>
#include <boost/math/constants/constants.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cassert>

namespace ibuki {
namespace {

constexpr double rootTwo = boost::math::constants::root_two<double>();

double normalDensity(double z) {
    return boost::math::constants::one_div_root_two_pi<double>() * std::exp(-0.5 * z * z);
}

/// Φ(a) − Φ(b), a ≥ b, without loss of digits in either tail.
double normalDifference(double a, double b) {
    if (b > 0) return 0.5 * (std::erfc(b / rootTwo) - std::erfc(a / rootTwo));
    if (a < 0) return 0.5 * (std::erfc(-a / rootTwo) - std::erfc(-b / rootTwo));
    return 0.5 * (std::erf(a / rootTwo) - std::erf(b / rootTwo));
}

/// Probability that the range of k standard normals is at most w.
double rangeCdf(double w, int k) {
    if (w <= 0) return 0;
    const double h = k <= 20 ? 0.25 : 0.125;
    double sum = 0;
    const int reach = static_cast<int>(8.5 / h);
    for (int i = -reach; i <= reach; ++i) {
        const double z = i * h;
        sum += normalDensity(z) * std::pow(normalDifference(z, z - w), k - 1);
    }
    return std::min(1.0, k * h * sum);
}

} // namespace

double studentizedRangeCdf(double q, int k, double nu) {
    assert(k >= 2 && nu > 0);
    if (!(q > 0)) return 0;
    return std::min(1.0, expectOverScale(nu, [&](double s) { return rangeCdf(q * s, k); }));
}

double studentizedRangeQuantile(double p, int k, double nu) {
    assert(p > 0 && p < 1 && k >= 2 && nu > 0);
    const double student = nu <= 1e8 ? boost::math::quantile(boost::math::students_t(nu), 0.5 * (1 + p))
                                     : boost::math::quantile(boost::math::normal(), 0.5 * (1 + p));
    if (k == 2) return rootTwo * student; // exact identity
    // The range of k means is stochastically larger than that of two.
    const double lo = 0.9999 * rootTwo * student;
    return rootOfGrowing([&](double q) { return studentizedRangeCdf(q, k, nu) - p; }, lo,
                         std::max(1.5 * lo, 1.0));
}

} // namespace ibuki
