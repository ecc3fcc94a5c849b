// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/pair_judge.h"

#include "core/distributions/distributions.h"
#include "core/distributions/normal.h"
#include "core/distributions/studentized_range.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

DifferenceSize sizeOf(const PairComparison& pair, double margin) {
    if (pair.ci->lo > margin || pair.ci->hi < -margin) return DifferenceSize::beyondMargin;
    if (pair.equivalenceCi && pair.equivalenceCi->within(margin)) return DifferenceSize::withinMargin;
    return DifferenceSize::notKnown;
}

} // namespace

CriticalValues criticalValues(int k, double df, double confidence) {
    return {df, studentizedRangeQuantile(confidence, k, df) / std::sqrt(2.0),
            studentQuantile(confidence, df)};
}

double settleChance(double d, double se, double margin, const CriticalValues& critical) {
    if (!(se > 0)) return 1;
    const auto below = [&](double limit) { // P(|estimate| < limit)
        if (limit <= 0) return 0.0;
        return normalCdf((limit - d) / se) - normalCdf((-limit - d) / se);
    };
    return expectOverScale(critical.df, [&](double s) {
        const double differentFrom = critical.different * s * se;
        const double equivalentTo = margin - critical.equivalent * s * se;
        return 1 - std::max(0.0, below(differentFrom) - below(equivalentTo));
    });
}

void judgePair(PairComparison& pair, const Estimate& found, double df, PairFamily& family,
               const CompareOptions& options) {
    const double margin = options.margin;
    const double d = found.value;
    const double se = found.se;
    const CriticalValues& critical = family.critical(df);
    pair.difference = d;
    pair.se = se;
    pair.df = df;
    pair.ci = Interval{d - critical.different * se, d + critical.different * se};
    pair.equivalenceCi = Interval{d - critical.equivalent * se, d + critical.equivalent * se};
    if (se > 0) {
        if (options.tellP) pair.pAdjusted = family.adjustedP(std::abs(d) / se, df);
        pair.equivalenceP =
            std::max(studentUpper((d + margin) / se, df), studentUpper((margin - d) / se, df));
    } else { // no spread at all between mounts: what is seen is exact
        pair.pAdjusted = d == 0 ? 1 : 0;
        pair.equivalenceP = std::abs(d) < margin ? 0 : 1;
    }
    const bool excludesZero = pair.ci->lo > 0 || pair.ci->hi < 0;
    pair.verdict = excludesZero                          ? Verdict::different
                   : *pair.equivalenceP < family.alpha() ? Verdict::equivalent
                                                         : Verdict::unresolved;
    pair.size = sizeOf(pair, margin);
}

void addFurtherMounts(PairComparison& pair, const CompareOptions& options, const LaterJudgement& later) {
    const auto settles = [&](int m) {
        const auto [se, critical] = later(m);
        return settleChance(*pair.difference, se, options.margin, critical) >= options.settleChance;
    };
    if (options.mostFurtherMounts < 1 || !settles(options.mostFurtherMounts))
        return; // more mounts settle more
    int fewer = 0;
    int enough = options.mostFurtherMounts;
    while (enough - fewer > 1) {
        const int middle = (fewer + enough) / 2;
        (settles(middle) ? enough : fewer) = middle;
    }
    pair.settleable = true;
    pair.furtherMounts = enough;
}

} // namespace ibuki
