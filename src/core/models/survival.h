// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Things that happen to a mount or do not (cracked, pumped out, stuck): counts with exact intervals and an
// exact comparison, and what share survives how long (docs/methods.md, "Drift", G.7).

#include "core/distributions/interval.h"

#include <optional>
#include <vector>

namespace ibuki {

/// Of a share: Clopper & Pearson 1934. trials ≥ 1, 0 ≤ happened ≤ trials.
Interval shareInterval(int happened, int trials, double confidence = 0.95);

/// Two-sided p of two counts: Fisher's exact test, all tables no likelier than the one seen.
double sameShareP(int happenedA, int trialsA, int happenedB, int trialsB);

/// How long one mount was watched, in whatever clock, and whether it happened at the end of that.
struct Watched {
    double until = 0; ///< ≥ 0
    bool happened = false;
};

struct SurvivalStep {
    double at = 0;
    int atRisk = 0;
    int happened = 0;
    double survived = 1;
    std::optional<Interval> interval; ///< Greenwood's variance on ln(−ln S); nothing where S is 0
};

/// Kaplan & Meier 1958: a step at each time at which it happened. Who is watched until then is at risk.
std::vector<SurvivalStep> survival(std::vector<Watched> watched, double confidence = 0.95);

/// First time by which half of them had it; nothing where more than half survive.
std::optional<double> medianSurvival(const std::vector<SurvivalStep>& steps);

/// That two groups survive alike: log-rank test (Mantel 1966). Nothing where it happened to none.
std::optional<double> sameSurvivalP(const std::vector<Watched>& a, const std::vector<Watched>& b);

} // namespace ibuki
