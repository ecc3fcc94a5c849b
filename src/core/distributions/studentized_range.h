// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Distribution of the studentized range q = (max − min of k means)/s (Tukey 1953), by the double integral
//   P(q; k, ν) = ∫ f_ν(s) W(q s; k) ds,   W(w; k) = k ∫ φ(z) [Φ(z) − Φ(z − w)]^{k−1} dz,
// both by trapezoids that converge exponentially (docs/methods.md, "Studentized range"). ν may be fractional
// or infinite. Error below 1e-10 in P and 1e-8 in q for k ≤ 200.

#include <cmath>
#include <vector>

namespace ibuki {

/// P(Q ≤ q) for k ≥ 2 means and ν > 0 degrees of freedom; 0 for q ≤ 0.
double studentizedRangeCdf(double q, int k, double nu);

/// q with P(Q ≤ q) = p, 0 < p < 1.
double studentizedRangeQuantile(double p, int k, double nu);

/// The distribution for one k and ν, worked out once for many q: P as a polynomial in q/(q + c) through the
/// Chebyshev points (barycentric form, Berrut & Trefethen 2004), c the median. Agrees with
/// studentizedRangeCdf to 1e-10.
class StudentizedRangeTable {
public:
    StudentizedRangeTable(int k, double nu);
    double operator()(double q) const;

private:
    double median_;
    std::vector<double> place_; ///< of the points, growing from 0 to 1
    std::vector<double> value_;
};

/// E[g(S)] for S = √(χ²_ν/ν): trapezoid in u = ln s, walked outwards from u = 0 until the weight is below
/// 1e-18, divided by the summed weights. ν infinite gives g(1).
template <class Function> double expectOverScale(double nu, Function&& g) {
    if (!(nu <= 1e8)) return g(1.0);
    const double step = std::fmin(0.1, 0.35 / std::sqrt(2 * nu));
    const double logConstant = std::log(2.0) + 0.5 * nu * std::log(nu / 2) - std::lgamma(nu / 2);
    const auto weight = [&](double u) { return std::exp(logConstant + nu * u - 0.5 * nu * std::exp(2 * u)); };
    double sum = 0;
    double weights = 0;
    const auto add = [&](double u) {
        const double w = weight(u);
        if (w < 1e-18) return false;
        sum += w * g(std::exp(u));
        weights += w;
        return true;
    };
    for (int i = 0; add(i * step); ++i) {
    }
    for (int i = -1; add(i * step); --i) {
    }
    return sum / weights;
}

} // namespace ibuki
