// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From an estimate of a difference to what is said of it: interval, p, equivalence, verdict, further mounts.

#include "core/comparison/pair_family.h"

#include <functional>

namespace ibuki {

/// A mean or a difference with its standard error.
struct Estimate {
    double value = 0;
    double se = 0;
};

/// The estimate is normal, its standard error estimated with df degrees of freedom (infinite: known).
void judgePair(PairComparison& pair, const Estimate& found, double df, PairFamily& family,
               const CompareOptions& options);

/// What a pair would be judged by with m more mounts of each of its groups.
using LaterJudgement = std::function<std::pair<double, CriticalValues>(int m)>; ///< standard error, critical

/// The smallest m that gives the chance asked of settling the pair, its difference and scatter being as they
/// are.
void addFurtherMounts(PairComparison& pair, const CompareOptions& options, const LaterJudgement& later);

} // namespace ibuki
