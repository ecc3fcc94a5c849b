// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/compare.h"

#include "core/base/input_error.h"
#include "core/comparison/censored_groups.h"
#include "core/comparison/compared_groups.h"
#include "core/comparison/naming.h"
#include "core/comparison/pair_judge.h"
#include "core/comparison/tiers.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <functional>
#include <map>
#include <numeric>

namespace ibuki {
namespace {

void checkOptions(const CompareOptions& options) {
    if (!(options.margin > 0) || !std::isfinite(options.margin))
        throw InputError("compare-margin", {}, {{"margin", options.margin}});
    if (!(options.confidence > 0.5 && options.confidence <= highestConfidence))
        throw InputError("compare-confidence", {}, {{"confidence", options.confidence}});
    if (options.spread == SpreadModel::welch && options.takesOut())
        throw InputError("compare-welch-blocks", {});
    if (options.assumed && !options.assumed->isSound()) throw InputError("compare-assumed", {});
    if (options.prior && !(options.prior->isSound() && options.prior->isFinite()))
        throw InputError("compare-assumed", {});
    if (options.prior && (options.spread == SpreadModel::welch || options.assumed))
        throw InputError("compare-prior", {});
}

std::optional<std::size_t> referenceGroup(const std::vector<GroupSummary>& groups,
                                          std::optional<std::int64_t> reference) {
    if (!reference) return std::nullopt;
    for (std::size_t i = 0; i < groups.size(); ++i)
        if (groups[i].id == *reference) return i;
    throw InputError("compare-reference", {});
}

/// Which groups are compared, and how. Indexes are into the comparison's groups.
struct Parts {
    std::vector<std::size_t> tested;   ///< without limit-bound mounts
    std::vector<std::size_t> fitted;   ///< limit-bound with enough others: by maximum likelihood
    std::vector<std::size_t> compared; ///< both, in order

    static std::size_t placeIn(const std::vector<std::size_t>& list, std::size_t group) {
        return static_cast<std::size_t>(std::lower_bound(list.begin(), list.end(), group) - list.begin());
    }
    static bool has(const std::vector<std::size_t>& list, std::size_t group) {
        return std::binary_search(list.begin(), list.end(), group);
    }
};

/// There is something to compare, or it is said why not.
Parts partsOf(const std::vector<GroupSummary>& groups) {
    Parts parts;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const bool fitted =
            groups[i].censoredMounts > 0 && groups[i].mounts - groups[i].censoredMounts >= leastSeenMounts;
        if (groups[i].censoredMounts == 0) parts.tested.push_back(i);
        if (fitted) parts.fitted.push_back(i);
        if (groups[i].censoredMounts == 0 || fitted) parts.compared.push_back(i);
    }
    if (groups.size() < 2) throw InputError("compare-one-group", {});
    if (parts.compared.size() < 2)
        throw InputError(parts.compared.empty() ? "compare-limit-bound" : "compare-limit-bound.one-left", {});
    return parts;
}

template <class T>
std::vector<const T*> picked(const std::vector<T>& all, const std::vector<std::size_t>& which) {
    std::vector<const T*> some;
    for (std::size_t i : which) some.push_back(&all[i]);
    return some;
}

void addTiers(Comparison& comparison) {
    std::vector<std::size_t> reported; // groups that are tested, without limit-bound mounts, take part
    for (std::size_t i = 0; i < comparison.groups.size(); ++i) {
        const GroupSummary& group = comparison.groups[i];
        if (group.adjusted && group.se && group.censoredMounts == 0) reported.push_back(i);
    }
    std::vector<int> order(reported.size());
    std::iota(order.begin(), order.end(), 0);
    std::stable_sort(order.begin(), order.end(), [&](int x, int y) {
        const double a = *comparison.groups[reported[static_cast<std::size_t>(x)]].adjusted;
        const double b = *comparison.groups[reported[static_cast<std::size_t>(y)]].adjusted;
        return comparison.options.lowerIsBetter ? a < b : a > b;
    });
    std::vector<int> ranks(reported.size());
    for (std::size_t r = 0; r < order.size(); ++r)
        ranks[static_cast<std::size_t>(order[r])] = static_cast<int>(r);
    std::vector<std::pair<int, int>> different;
    const auto localIndex = [&](std::size_t group) { // told is in order
        return static_cast<int>(std::lower_bound(reported.begin(), reported.end(), group) - reported.begin());
    };
    const auto takesPart = [&](std::size_t group) {
        return std::binary_search(reported.begin(), reported.end(), group);
    };
    for (const PairComparison& pair : comparison.pairs)
        if (pair.verdict == Verdict::different && takesPart(pair.a) && takesPart(pair.b))
            different.emplace_back(localIndex(pair.a), localIndex(pair.b));
    const Tiers tiers = letterTiers(ranks, different);
    if (tiers.letters.empty() && !reported.empty())
        addFlag(comparison.flags, makeFlag(Severity::info, "tiers-left-out"));
    for (std::size_t i = 0; i < tiers.letters.size(); ++i)
        comparison.groups[reported[i]].tier = tiers.letters[i];
    for (const auto& members : tiers.members) {
        std::vector<std::size_t> tier;
        for (int member : members) tier.push_back(reported[static_cast<std::size_t>(member)]);
        comparison.tiers.push_back(std::move(tier));
    }
}

void addFlags(Comparison& comparison, const std::vector<GroupRuns>& gathered) {
    std::vector<std::string> single;
    std::vector<std::string> bound;
    std::vector<std::string> fitted;
    for (const GroupSummary& group : comparison.groups) {
        if (group.mounts == 1) single.push_back(group.name);
        if (group.censoredMounts > 0) (group.mean ? fitted : bound).push_back(group.name);
    }
    const std::size_t runs = gathered.front().mounts.front().values.size();
    const bool unequal = std::any_of(gathered.begin(), gathered.end(), [&](const GroupRuns& group) {
        return std::any_of(group.mounts.begin(), group.mounts.end(),
                           [&](const MountRuns& mount) { return mount.values.size() != runs; });
    });
    const bool assumed = isProvisional(comparison) && comparison.options.assumed;
    if (!comparison.options.mountsKnown) addFlag(comparison.flags, makeFlag(Severity::info, "mount-missing"));
    if (assumed)
        addFlag(comparison.flags, makeFlag(Severity::warn, "scatter-assumed",
                                           {{"sd", comparison.options.assumed->sd},
                                            {"source", comparison.options.assumed->source}}));
    if (comparison.moderated) addFlag(comparison.flags, scatterFlag(*comparison.moderated));
    if (!single.empty() && !assumed)
        addFlag(comparison.flags, makeFlag(Severity::warn, "single-mount", {{"single", single}}));
    if (!bound.empty())
        addFlag(comparison.flags, makeFlag(Severity::warn, "limit-bound.groups", {{"bound", bound}}));
    if (!fitted.empty())
        addFlag(comparison.flags, makeFlag(Severity::warn, "limit-bound.fitted", {{"fitted", fitted}}));
    if (unequal && comparison.options.prior)
        addFlag(comparison.flags, makeFlag(Severity::info, "plain-means"));
    else if (unequal && comparison.variance)
        addFlag(comparison.flags, makeFlag(Severity::info, "runs-weighted"));
}

/// Pairs that blocks do not let be told, though both groups were measured in full.
void flagConfounded(Comparison& comparison) {
    std::vector<std::string> untold;
    for (const PairComparison& pair : comparison.pairs) {
        const GroupSummary& a = comparison.groups[pair.a];
        const GroupSummary& b = comparison.groups[pair.b];
        if (!pair.difference && a.censoredMounts == 0 && b.censoredMounts == 0)
            untold.push_back(fmt::format("{} – {}", a.name, b.name));
    }
    if (!untold.empty())
        addFlag(comparison.flags, makeFlag(Severity::warn, "confounded", {{"pairs", untold}}));
}

/// Means and intervals of groups by the model of the tested ones.
void tellPooled(Comparison& comparison, const Parts& parts, const GroupModel& model) {
    const double t = studentQuantile(0.5 + comparison.options.confidence / 2, model.df());
    for (std::size_t i = 0; i < parts.tested.size(); ++i) {
        GroupSummary& group = comparison.groups[parts.tested[i]];
        const auto found = model.mean(i);
        group.adjusted = group.se = std::nullopt;
        if (!found) continue;
        if (!model.isAdjusted()) group.mean = found->value;
        group.adjusted = found->value;
        group.se = found->se;
        group.ci = Interval{found->value - t * found->se, found->value + t * found->se};
    }
    if (parts.tested.size() > 1) comparison.anova = model.test();
    comparison.drift = model.drift();
    comparison.covariate = model.covariate();
    comparison.equalSlopes = model.equalSlopes();
    comparison.pooledSd = std::sqrt(model.variance());
    comparison.df = model.df();
    comparison.moderated = model.moderated();
    if (model.nested()) comparison.variance = VarianceParts{model.nested()->between, model.nested()->within};
}

void tellOwnSpread(Comparison& comparison, const Parts& parts) {
    for (std::size_t i : parts.tested) {
        GroupSummary& group = comparison.groups[i];
        group.adjusted = group.mean;
        if (!group.sd) continue;
        group.se = *group.sd / std::sqrt(group.mounts);
        group.ci = studentInterval(*group.mean, *group.se, group.mounts - 1, comparison.options.confidence);
    }
}

using PairMaker = std::function<PairComparison(std::size_t a, std::size_t b)>;

void addPairs(Comparison& comparison, std::optional<std::size_t> reference, const PairMaker& make) {
    const auto add = [&](std::size_t a, std::size_t b) {
        PairComparison pair = make(a, b);
        pair.a = a;
        pair.b = b;
        comparison.pairs.push_back(pair);
    };
    for (std::size_t i = 0; i < comparison.groups.size(); ++i) {
        if (reference && i != *reference) add(i, *reference);
        for (std::size_t j = i + 1; !reference && j < comparison.groups.size(); ++j) add(i, j);
    }
}

} // namespace

bool isProvisional(const Comparison& comparison) {
    return std::any_of(comparison.pairs.begin(), comparison.pairs.end(),
                       [](const PairComparison& pair) { return pair.provisional; });
}

std::string_view adjustmentName(Adjustment adjustment) {
    switch (adjustment) {
    case Adjustment::none:
        return "none";
    case Adjustment::tukey:
        return "tukey";
    case Adjustment::gamesHowell:
        return "games-howell";
    case Adjustment::dunnett:
        return "dunnett";
    }
    return "";
}

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

namespace {

/// The tests over all groups without limit-bound mounts.
void addTests(Comparison& comparison, const Parts& parts, const std::vector<const GroupRuns*>& tested) {
    Groups means;
    for (std::size_t i : parts.tested) means.push_back(comparison.groups[i].mountMeans);
    const CompareOptions& options = comparison.options;
    if (!options.takesOut()) comparison.welch = welchAnova(means);
    comparison.brownForsythe = brownForsytheSpread(means);
    if (options.spread != SpreadModel::welch || tested.size() < 2) return;
    try { // the pooled test is told beside it
        const GroupModel pooled(tested, options);
        comparison.anova = pooled.test();
        if (pooled.nested())
            comparison.variance = VarianceParts{pooled.nested()->between, pooled.nested()->within};
    } catch (const InputError&) { // single mounts only
    }
}

std::optional<std::size_t> placeOf(const std::vector<std::size_t>& list, std::optional<std::size_t> group) {
    if (!group || !Parts::has(list, *group)) return std::nullopt;
    return Parts::placeIn(list, *group);
}

/// Of Dunnett's comparisons by maximum likelihood: as if every group had the same spread.
PairFamily boundFamily(const Comparison& comparison, const Parts& parts,
                       std::optional<std::size_t> reference) {
    const double alpha = 1 - comparison.options.confidence;
    if (!reference) return PairFamily::allPairs(static_cast<int>(parts.compared.size()), alpha);
    std::vector<double> share; // of the reference in each difference's variance
    const double own = 1.0 / comparison.groups[*reference].mounts;
    for (std::size_t i : parts.compared)
        if (i != *reference) share.push_back(std::sqrt(own / (own + 1.0 / comparison.groups[i].mounts)));
    Columns correlation(share.size(), share.size());
    for (std::size_t i = 0; i < share.size(); ++i)
        for (std::size_t j = 0; j < share.size(); ++j) correlation[i][j] = i == j ? 1 : share[i] * share[j];
    return PairFamily::againstReference(correlation, alpha);
}

/// Groups with runs at the limit, by their likelihood; their scatter where nothing else tells one.
CensoredGroups tellCensored(Comparison& comparison, const Parts& parts,
                            const std::vector<GroupRuns>& gathered, bool knowsScatter) {
    CensoredGroups censored(picked(comparison.groups, parts.compared), picked(gathered, parts.compared));
    for (std::size_t i : parts.fitted)
        censored.tell(Parts::placeIn(parts.compared, i), comparison.groups[i], comparison.options.confidence);
    if (!knowsScatter) {
        comparison.pooledSd = censored.sd();
        comparison.df = censored.df();
    }
    return censored;
}

} // namespace

Comparison compare(const std::vector<RunValue>& runs, const CompareOptions& options) {
    checkOptions(options);
    Comparison comparison;
    comparison.options = options;
    const auto gathered = gather(runs, options.mountsKnown);
    for (const GroupRuns& group : gathered)
        comparison.groups.push_back(summarise(group, options.lowerIsBetter));
    const Parts parts = partsOf(comparison.groups);
    const auto tested = picked(gathered, parts.tested);
    const auto reference = referenceGroup(comparison.groups, options.reference);
    const int compared = static_cast<int>(parts.compared.size());
    addTests(comparison, parts, tested);

    std::optional<PooledGroups> pooled;
    std::optional<OwnSpreadGroups> own;
    const auto testedReference = placeOf(parts.tested, reference);
    const bool single = std::all_of(tested.begin(), tested.end(),
                                    [](const GroupRuns* group) { return group->mounts.size() == 1; });
    if (options.spread == SpreadModel::welch && !(single && options.assumed)) {
        own.emplace(picked(comparison.groups, parts.tested), testedReference, parts.fitted.size(), options);
        tellOwnSpread(comparison, parts);
    } else if (!tested.empty()) {
        try {
            pooled.emplace(tested, testedReference, compared, options);
            tellPooled(comparison, parts, pooled->model());
        } catch (const InputError&) {
            if (parts.fitted.empty()) throw;
        }
    }
    std::optional<CensoredGroups> censored;
    PairFamily family = boundFamily(comparison, parts, reference);
    if (!parts.fitted.empty())
        censored = tellCensored(comparison, parts, gathered, comparison.pooledSd || own);
    addPairs(comparison, reference, [&](std::size_t a, std::size_t b) {
        if (!Parts::has(parts.compared, a) || !Parts::has(parts.compared, b)) return PairComparison{};
        const std::size_t i = Parts::placeIn(parts.tested, a);
        const std::size_t j = Parts::placeIn(parts.tested, b);
        if (!Parts::has(parts.tested, a) || !Parts::has(parts.tested, b))
            return censored->compare(Parts::placeIn(parts.compared, a), Parts::placeIn(parts.compared, b),
                                     family, options.margin);
        if (own) return own->compare(i, j);
        return pooled ? pooled->compare(i, j) : PairComparison{};
    });
    if (!reference) addTiers(comparison);
    addFlags(comparison, gathered);
    if (options.takesOut()) flagConfounded(comparison);
    return comparison;
}

Comparison onlyGroups(const std::vector<RunValue>& runs, const CompareOptions& options) {
    Comparison comparison;
    comparison.options = options;
    for (const GroupRuns& group : gather(runs, options.mountsKnown))
        comparison.groups.push_back(summarise(group, options.lowerIsBetter));
    return comparison;
}

Judged judge(const std::vector<RunValue>& runs, const CompareOptions& options,
             const std::function<Comparison()>& compared) {
    try {
        return {compared ? compared() : compare(runs, options), {}, {}};
    } catch (const InputError& error) {
        return {{}, onlyGroups(runs, options), error.message};
    }
}

Comparison compare(const std::vector<TableRun>& runs, CompareOptions options, const std::string& reference) {
    RunNaming named;
    std::vector<RunValue> reported;
    for (const TableRun& run : runs) reported.push_back(named(run));
    if (!reference.empty()) options.reference = named.group(reference).id;
    return compare(reported, options);
}

} // namespace ibuki
