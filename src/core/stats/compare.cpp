// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/compare.h"

#include "core/base/input_error.h"
#include "core/stats/dunnett.h"
#include "core/stats/studentized_range.h"
#include "core/stats/summary.h"
#include "core/stats/tiers.h"

#include <algorithm>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <numeric>

namespace ibuki {
namespace {

double studentQuantile(double p, double df) { return boost::math::quantile(boost::math::students_t(df), p); }

double studentUpper(double t, double df) {
    return boost::math::cdf(boost::math::complement(boost::math::students_t(df), t));
}

struct MountRuns {
    Named mount;
    std::vector<double> values;
    bool limitBound = false;
};

struct GroupRuns {
    Named group;
    std::vector<MountRuns> mounts;
};

std::vector<GroupRuns> gather(const std::vector<RunValue>& runs, bool mountsKnown) {
    std::vector<GroupRuns> groups;
    for (const RunValue& run : runs) {
        auto group = std::find_if(groups.begin(), groups.end(),
                                  [&](const auto& g) { return g.group.id == run.group.id; });
        if (group == groups.end()) group = groups.insert(groups.end(), {run.group, {}});
        auto mount = mountsKnown ? std::find_if(group->mounts.begin(), group->mounts.end(),
                                                [&](const auto& m) { return m.mount.id == run.mount.id; })
                                 : group->mounts.end();
        if (mount == group->mounts.end()) mount = group->mounts.insert(mount, {run.mount, {}, false});
        mount->values.push_back(run.value);
        mount->limitBound = mount->limitBound || run.limitBound;
    }
    return groups;
}

GroupSummary summarise(const GroupRuns& runs, bool lowerIsBetter) {
    GroupSummary group;
    group.id = runs.group.id;
    group.name = runs.group.name;
    group.mounts = static_cast<int>(runs.mounts.size());
    for (const MountRuns& mount : runs.mounts) {
        group.runs += static_cast<int>(mount.values.size());
        group.limitBoundMounts += mount.limitBound ? 1 : 0;
        group.mountMeans.push_back(mean(mount.values));
        group.mountsInOrder.push_back(mount.mount);
    }
    const auto [low, high] = std::minmax_element(group.mountMeans.begin(), group.mountMeans.end());
    group.sd = sampleSd(group.mountMeans);
    group.best = lowerIsBetter ? *low : *high;
    group.median = median(group.mountMeans);
    if (group.limitBoundMounts == 0)
        group.mean = mean(group.mountMeans);
    else
        group.bound = mean(group.mountMeans);
    return group;
}

void checkOptions(const CompareOptions& options) {
    if (!(options.margin > 0) || !std::isfinite(options.margin))
        throw InputError("compare-margin", {}, {{"margin", options.margin}});
    if (!(options.confidence > 0.5 && options.confidence <= highestConfidence))
        throw InputError("compare-confidence", {}, {{"confidence", options.confidence}});
}

constexpr int manyGroups = 25; ///< 300 pairs

/// What all pairs of one comparison share.
struct Pooled {
    double variance = 0;
    int groups = 0;
    double alpha = 0;
    std::vector<double> against; ///< mounts of the groups held against a reference; empty: all pairs
    double referenceMounts = 0;
    CriticalValues now;
    std::vector<CriticalValues> later =
        {}; ///< with 1, 2, … more mounts of each group; filled as far as asked for
    std::optional<StudentizedRangeTable> table = {}; ///< of many groups' pairs, which then are far more

    bool isDunnett() const { return against.size() > 1; }
    std::string adjustment() const { return groups == 2 ? "none" : isDunnett() ? "dunnett" : "tukey"; }

    CriticalValues critical(double df, int furtherMounts) const {
        if (!isDunnett()) return criticalValues(groups, df, 1 - alpha);
        std::vector<double> n = against;
        for (double& mounts : n) mounts += furtherMounts;
        return {df, dunnettQuantile(1 - alpha, n, referenceMounts + furtherMounts, df),
                studentQuantile(1 - alpha, df)};
    }

    const CriticalValues& with(int furtherMounts) {
        while (static_cast<int>(later.size()) < furtherMounts) {
            const auto more = static_cast<int>(later.size()) + 1;
            later.push_back(critical(now.df + static_cast<double>(groups) * more, more));
        }
        return later[static_cast<std::size_t>(furtherMounts) - 1];
    }

    /// Adjusted p of |d|/se = t.
    double adjustedP(double t) {
        if (groups == 2) return 2 * studentUpper(t, now.df);
        if (isDunnett()) return 1 - dunnettCdf(t, against, referenceMounts, now.df);
        const double q = std::sqrt(2.0) * t;
        if (groups < manyGroups) return 1 - studentizedRangeCdf(q, groups, now.df);
        if (!table) table.emplace(groups, now.df);
        return 1 - (*table)(q);
    }
};

DifferenceSize sizeOf(const PairComparison& pair, double margin) {
    if (pair.ci->lo > margin || pair.ci->hi < -margin) return DifferenceSize::beyondMargin;
    if (pair.equivalenceCi->within(margin)) return DifferenceSize::withinMargin;
    return DifferenceSize::notKnown;
}

void addFurtherMounts(PairComparison& pair, Pooled& pooled, const GroupSummary& a, const GroupSummary& b,
                      const CompareOptions& options) {
    for (int m = 1; m <= options.mostFurtherMounts; ++m) {
        const double se = std::sqrt(pooled.variance * (1.0 / (a.mounts + m) + 1.0 / (b.mounts + m)));
        const double chance = ibuki::settleChance(*pair.difference, se, options.margin, pooled.with(m));
        if (chance < options.settleChance) continue;
        pair.settleable = true;
        pair.furtherMounts = m;
        return;
    }
}

PairComparison comparePair(const std::vector<GroupSummary>& groups, std::size_t i, std::size_t j,
                           Pooled& pooled, const CompareOptions& options) {
    PairComparison pair;
    pair.a = i;
    pair.b = j;
    pair.adjustment = pooled.adjustment();
    const GroupSummary& a = groups[i];
    const GroupSummary& b = groups[j];
    if (!a.mean || !b.mean) return pair;
    const double d = *a.mean - *b.mean;
    const double se = std::sqrt(pooled.variance * (1.0 / a.mounts + 1.0 / b.mounts));
    pair.difference = d;
    pair.se = se;
    pair.df = pooled.now.df;
    pair.ci = Interval{d - pooled.now.different * se, d + pooled.now.different * se};
    pair.equivalenceCi = Interval{d - pooled.now.equivalent * se, d + pooled.now.equivalent * se};
    if (se > 0) {
        pair.pAdjusted = pooled.adjustedP(std::abs(d) / se);
        pair.equivalenceP = std::max(studentUpper((d + options.margin) / se, pooled.now.df),
                                     studentUpper((options.margin - d) / se, pooled.now.df));
    } else { // no spread at all between mounts: what is seen is exact
        pair.pAdjusted = d == 0 ? 1 : 0;
        pair.equivalenceP = std::abs(d) < options.margin ? 0 : 1;
    }
    const bool excludesZero = pair.ci->lo > 0 || pair.ci->hi < 0;
    pair.verdict = excludesZero                        ? Verdict::different
                   : *pair.equivalenceP < pooled.alpha ? Verdict::equivalent
                                                       : Verdict::unresolved;
    pair.size = sizeOf(pair, options.margin);
    if (pair.verdict == Verdict::unresolved) addFurtherMounts(pair, pooled, a, b, options);
    return pair;
}

std::optional<std::size_t> referenceGroup(const std::vector<GroupSummary>& groups,
                                          std::optional<std::int64_t> reference) {
    if (!reference) return std::nullopt;
    for (std::size_t i = 0; i < groups.size(); ++i)
        if (groups[i].id == *reference) return i;
    throw InputError("compare-reference", {});
}

/// There is something to compare and a scatter to judge it by, or it is said why not.
OneWayAnova scatterOf(const std::vector<GroupSummary>& groups, const Groups& tested) {
    if (groups.size() < 2) throw InputError("compare-one-group", {});
    if (tested.size() < 2 && tested.size() < groups.size())
        throw InputError(tested.empty() ? "compare-limit-bound" : "compare-limit-bound.one-left", {});
    if (const auto anova = oneWayAnova(tested)) return *anova;
    throw InputError("compare-no-df", {});
}

void addTiers(Comparison& comparison) {
    std::vector<std::size_t> told; // groups with a mean take part
    for (std::size_t i = 0; i < comparison.groups.size(); ++i)
        if (comparison.groups[i].mean) told.push_back(i);
    std::vector<int> order(told.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](int x, int y) {
        const double a = *comparison.groups[told[static_cast<std::size_t>(x)]].mean;
        const double b = *comparison.groups[told[static_cast<std::size_t>(y)]].mean;
        return comparison.options.lowerIsBetter ? a < b : a > b;
    });
    std::vector<int> ranks(told.size());
    for (std::size_t r = 0; r < order.size(); ++r)
        ranks[static_cast<std::size_t>(order[r])] = static_cast<int>(r);
    std::vector<std::pair<int, int>> different;
    const auto localIndex = [&](std::size_t group) { // told is in order
        return static_cast<int>(std::lower_bound(told.begin(), told.end(), group) - told.begin());
    };
    for (const PairComparison& pair : comparison.pairs)
        if (pair.verdict == Verdict::different)
            different.emplace_back(localIndex(pair.a), localIndex(pair.b));
    const Tiers tiers = letterTiers(ranks, different);
    if (tiers.letters.empty() && !told.empty())
        addFlag(comparison.flags, makeFlag(Severity::info, "tiers-left-out"));
    for (std::size_t i = 0; i < tiers.letters.size(); ++i) comparison.groups[told[i]].tier = tiers.letters[i];
    for (const auto& members : tiers.members) {
        std::vector<std::size_t> tier;
        for (int member : members) tier.push_back(told[static_cast<std::size_t>(member)]);
        comparison.tiers.push_back(std::move(tier));
    }
}

void addFlags(Comparison& comparison, const std::vector<GroupRuns>& gathered) {
    std::vector<std::string> single;
    std::vector<std::string> bound;
    for (const GroupSummary& group : comparison.groups) {
        if (group.mounts == 1) single.push_back(group.name);
        if (group.limitBoundMounts > 0) bound.push_back(group.name);
    }
    const std::size_t runs = gathered.front().mounts.front().values.size();
    const bool unequal = std::any_of(gathered.begin(), gathered.end(), [&](const GroupRuns& group) {
        return std::any_of(group.mounts.begin(), group.mounts.end(),
                           [&](const MountRuns& mount) { return mount.values.size() != runs; });
    });
    if (!comparison.options.mountsKnown) addFlag(comparison.flags, makeFlag(Severity::info, "mount-missing"));
    if (!single.empty())
        addFlag(comparison.flags, makeFlag(Severity::warn, "single-mount", {{"single", single}}));
    if (!bound.empty())
        addFlag(comparison.flags, makeFlag(Severity::warn, "limit-bound.groups", {{"bound", bound}}));
    if (unequal) addFlag(comparison.flags, makeFlag(Severity::warn, "unequal-runs"));
}

} // namespace

std::string_view verdictName(Verdict verdict) {
    switch (verdict) {
    case Verdict::different:
        return "different";
    case Verdict::equivalent:
        return "equivalent";
    case Verdict::unresolved:
        return "unresolved";
    }
    return "";
}

std::string_view sizeName(DifferenceSize size) {
    switch (size) {
    case DifferenceSize::beyondMargin:
        return "beyond-margin";
    case DifferenceSize::withinMargin:
        return "within-margin";
    case DifferenceSize::notKnown:
        return "not-known";
    }
    return "";
}

CriticalValues criticalValues(int k, double df, double confidence) {
    return {df, studentizedRangeQuantile(confidence, k, df) / std::sqrt(2.0),
            studentQuantile(confidence, df)};
}

double settleChance(double d, double se, double margin, const CriticalValues& critical) {
    if (!(se > 0)) return 1;
    const boost::math::normal normal;
    const auto below = [&](double limit) { // P(|estimate| < limit)
        if (limit <= 0) return 0.0;
        return boost::math::cdf(normal, (limit - d) / se) - boost::math::cdf(normal, (-limit - d) / se);
    };
    return expectOverScale(critical.df, [&](double s) {
        const double differentFrom = critical.different * s * se;
        const double equivalentTo = margin - critical.equivalent * s * se;
        return 1 - std::max(0.0, below(differentFrom) - below(equivalentTo));
    });
}

Comparison compare(const std::vector<RunValue>& runs, const CompareOptions& options) {
    checkOptions(options);
    Comparison comparison;
    comparison.options = options;
    const auto gathered = gather(runs, options.mountsKnown);
    Groups tested;
    for (const GroupRuns& group : gathered) {
        comparison.groups.push_back(summarise(group, options.lowerIsBetter));
        if (comparison.groups.back().mean) tested.push_back(comparison.groups.back().mountMeans);
    }
    const OneWayAnova anova = scatterOf(comparison.groups, tested);
    if (anova.withinSs > 0) comparison.anova = anova.test;
    comparison.welch = welchAnova(tested);
    comparison.brownForsythe = brownForsytheSpread(tested);
    comparison.pooledSd = std::sqrt(anova.pooledVariance);
    comparison.df = anova.test.df2;

    Pooled pooled{anova.pooledVariance, static_cast<int>(tested.size()), 1 - options.confidence, {}, 0, {}};
    const auto reference = referenceGroup(comparison.groups, options.reference);
    for (std::size_t i = 0; reference && i < comparison.groups.size(); ++i) {
        if (!comparison.groups[i].mean) continue;
        if (i == *reference)
            pooled.referenceMounts = comparison.groups[i].mounts;
        else
            pooled.against.push_back(comparison.groups[i].mounts);
    }
    if (reference && !comparison.groups[*reference].mean) pooled.against.clear(); // no pair can be tested
    pooled.now = pooled.critical(anova.test.df2, 0);
    const double t = studentQuantile(0.5 + options.confidence / 2, pooled.now.df);
    for (GroupSummary& group : comparison.groups) {
        if (!group.mean) continue;
        group.se = std::sqrt(pooled.variance / group.mounts);
        group.ci = Interval{*group.mean - t * *group.se, *group.mean + t * *group.se};
    }
    for (std::size_t i = 0; i < comparison.groups.size(); ++i) {
        if (reference && i != *reference)
            comparison.pairs.push_back(comparePair(comparison.groups, i, *reference, pooled, options));
        for (std::size_t j = i + 1; !reference && j < comparison.groups.size(); ++j)
            comparison.pairs.push_back(comparePair(comparison.groups, i, j, pooled, options));
    }
    if (!reference) addTiers(comparison);
    addFlags(comparison, gathered);
    return comparison;
}

namespace {

/// Gives each name an id of its own, in order of first appearance.
class Naming {
public:
    Named operator()(const std::string& name) {
        const auto id = static_cast<std::int64_t>(ids_.size()) + 1;
        return {ids_.try_emplace(name, id).first->second, name};
    }

private:
    std::map<std::string, std::int64_t> ids_;
};

} // namespace

Comparison compare(const std::vector<TableRun>& runs, CompareOptions options, const std::string& reference) {
    Naming groups;
    Naming mounts;
    std::vector<RunValue> told;
    for (const TableRun& run : runs)
        told.push_back({groups(run.group), mounts(run.mount), run.value, run.limitBound});
    if (!reference.empty()) options.reference = groups(reference).id;
    return compare(told, options);
}

} // namespace ibuki
