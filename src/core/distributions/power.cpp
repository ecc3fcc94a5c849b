// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/power.h"

#include "core/distributions/distributions.h"
#include "core/distributions/normal.h"

#include <algorithm>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cassert>
#include <cmath>

namespace ibuki {

double pairPower(double critical, double df, double ncp) {
    assert(critical > 0 && df > 0);
    const double shift = std::abs(ncp);
    if (df > 1e6) { // the estimated spread is the true one
        return normalCdf(shift - critical) + normalCdf(-critical - shift);
    }
    return nonCentralStudentUpper(critical, df, shift) + nonCentralStudentCdf(-critical, df, shift);
}

double anovaPower(int k, int n, double lambda, double alpha) {
    assert(k >= 2 && n >= 2 && lambda >= 0);
    const double df1 = k - 1;
    const double df2 = static_cast<double>(k) * (n - 1);
    const double critical = fisherQuantile(1 - alpha, df1, df2);
    return nonCentralFisherUpper(critical, df1, df2, lambda);
}

double equivalencePower(double difference, double margin, double se, double df, double alpha) {
    assert(margin > 0 && se > 0 && df > 0);
    const double t = studentQuantile(1 - alpha, df);
    const double logConstant = std::log(2.0) + 0.5 * df * std::log(df / 2) - std::lgamma(df / 2);
    const auto density = [&](double s) {
        return s > 0 ? std::exp(logConstant + (df - 1) * std::log(s) - 0.5 * df * s * s) : 0.0;
    };
    const auto shown = [&](double s) {
        const double inside =
            normalCdf((margin - difference) / se - t * s) - normalCdf((-margin - difference) / se + t * s);
        return density(s) * std::max(0.0, inside);
    };
    // Beyond `most` the tests can never show it; the density of s = √(χ²/df) is spent well before 1 + 10/√(2
    // df).
    const double most = std::min(margin / (t * se), 1 + 10 / std::sqrt(2 * df));
    const double least = std::max(0.0, 1 - 10 / std::sqrt(2 * df));
    if (most <= least) return 0;
    return boost::math::quadrature::gauss_kronrod<double, 61>::integrate(shown, least, most, 12, 1e-13);
}

} // namespace ibuki
