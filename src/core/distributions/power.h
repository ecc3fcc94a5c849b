// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Chances of tests before the data are in. σ is the true spread between mounts; nothing here estimates
// (docs/methods.md, "How many mounts").

namespace ibuki {

/// P(|T'| > critical) for the noncentral t with df degrees of freedom and noncentrality ncp (Cohen 1988): the
/// chance that one given pair is declared different. df > 0, critical > 0.
double pairPower(double critical, double df, double ncp);

/// P(F' > F_{1−α}) for k groups of n mounts, λ = nΣ(μ_i−μ̄)²/σ².
double anovaPower(int k, int n, double lambda, double alpha);

/// Chance that two one-sided t tests at level α show |difference| < margin when it is truly `difference`
/// (Owen 1965, as an integral over the estimated spread). se: true standard error of the estimate, > 0.
double equivalencePower(double difference, double margin, double se, double df, double alpha);

} // namespace ibuki
