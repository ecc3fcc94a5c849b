// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/distributions.h"

#include <boost/math/distributions/beta.hpp>
#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/hypergeometric.hpp>
#include <boost/math/distributions/non_central_f.hpp>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>

namespace ibuki {

using boost::math::cdf;
using boost::math::complement;
using boost::math::quantile;

double normalQuantile(double p) { return quantile(boost::math::normal(), p); }
double studentQuantile(double p, double df) { return quantile(boost::math::students_t(df), p); }
double studentUpper(double t, double df) { return cdf(complement(boost::math::students_t(df), t)); }

Interval studentInterval(double centre, double se, double df, double confidence) {
    const double half = se * studentQuantile((1 + confidence) / 2, df);
    return {centre - half, centre + half};
}

double chiSquaredQuantile(double p, double df) { return quantile(boost::math::chi_squared(df), p); }
double chiSquaredUpper(double x, double df) { return cdf(complement(boost::math::chi_squared(df), x)); }
double fisherQuantile(double p, double df1, double df2) {
    return quantile(boost::math::fisher_f(df1, df2), p);
}
double fisherUpper(double f, double df1, double df2) {
    return cdf(complement(boost::math::fisher_f(df1, df2), f));
}
double nonCentralStudentCdf(double t, double df, double ncp) {
    return cdf(boost::math::non_central_t(df, ncp), t);
}
double nonCentralStudentUpper(double t, double df, double ncp) {
    return cdf(complement(boost::math::non_central_t(df, ncp), t));
}
double nonCentralFisherUpper(double f, double df1, double df2, double lambda) {
    if (lambda == 0) return fisherUpper(f, df1, df2); // Boost 1.74 gives its complement, with the sign turned
    return cdf(complement(boost::math::non_central_f(df1, df2, lambda), f));
}
double betaQuantile(double p, double a, double b) {
    return quantile(boost::math::beta_distribution<>(a, b), p);
}
double hypergeometric(unsigned k, unsigned marked, unsigned drawn, unsigned all) {
    return pdf(boost::math::hypergeometric_distribution<>(marked, drawn, all), k);
}

} // namespace ibuki
