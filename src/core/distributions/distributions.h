// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Quantiles and tails of the distributions that estimates are held against (Boost.Math). They stand here
// once: its headers are the dearest part of what the statistics include.

#include "core/distributions/interval.h"

namespace ibuki {

double normalQuantile(double p);
double studentQuantile(double p, double df); ///< df > 0, may be infinite
double studentUpper(double t, double df);    ///< P(T > t)
/// centre ± se · t, two-sided.
Interval studentInterval(double centre, double se, double df, double confidence);
double chiSquaredQuantile(double p, double df);
double chiSquaredUpper(double x, double df); ///< P(χ² > x)
double fisherQuantile(double p, double df1, double df2);
double fisherUpper(double f, double df1, double df2); ///< P(F > f)
double nonCentralStudentCdf(double t, double df, double ncp);
double nonCentralStudentUpper(double t, double df, double ncp);
double nonCentralFisherUpper(double f, double df1, double df2, double lambda);
double betaQuantile(double p, double a, double b);
/// P(k marked ones among `drawn` of `all`, of which `marked` are).
double hypergeometric(unsigned k, unsigned marked, unsigned drawn, unsigned all);

} // namespace ibuki
