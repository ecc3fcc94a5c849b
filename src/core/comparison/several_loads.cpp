// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/several_loads.h"

#include "core/base/input_error.h"
#include "core/comparison/naming.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <algorithm>
#include <array>
#include <map>
#include <set>

namespace ibuki {
namespace {

/// A mount that has every load, in the order of the loads: means of its runs.
struct CompleteMount {
    Named group;
    Named mount;
    std::vector<double> values;
};

void addNew(std::vector<Named>& all, const Named& one) {
    if (std::none_of(all.begin(), all.end(), [&](const Named& known) { return known.id == one.id; }))
        all.push_back(one);
}

const GroupSummary* groupIn(const Judged& judged, std::int64_t id) {
    for (const GroupSummary& group : judged.shown()->groups)
        if (group.id == id) return &group;
    return nullptr;
}

std::set<std::int64_t> censoredGroups(const std::vector<Judged>& perLoad) {
    std::set<std::int64_t> bound;
    for (const Judged& judged : perLoad)
        for (const GroupSummary& group : judged.shown()->groups)
            if (group.censoredMounts > 0) bound.insert(group.id);
    return bound;
}

std::vector<std::string> namesOf(const std::vector<Named>& all, const std::set<std::int64_t>& ids) {
    std::vector<std::string> names;
    for (const Named& one : all)
        if (ids.contains(one.id)) names.push_back(one.name);
    return names;
}

struct Gathered {
    std::vector<CompleteMount> complete;
    int incomplete = 0;
};

/// Of groups that are not left out. Where mounts are not known every run is one, under its load only.
Gathered gatherMounts(const SeveralLoads& found, bool mountsKnown, const std::set<std::int64_t>& leftOut) {
    std::vector<CompleteMount> mounts;
    std::map<std::array<std::int64_t, 3>, std::size_t> placeOf;
    for (const Named& group : found.groups)
        for (std::size_t l = 0; l < found.loads.size(); ++l) {
            const GroupSummary* there = groupIn(found.perLoad[l], group.id);
            if (!there || leftOut.contains(group.id)) continue;
            for (std::size_t m = 0; m < there->mountMeans.size(); ++m) {
                const Named& mount = there->mountsInOrder[m];
                const std::array key = mountsKnown ? std::array{group.id, mount.id, std::int64_t{-1}}
                                                   : std::array{group.id, static_cast<std::int64_t>(l),
                                                                static_cast<std::int64_t>(m)};
                const auto [at, isNew] = placeOf.try_emplace(key, mounts.size());
                if (isNew) mounts.push_back({group, mount, {}});
                mounts[at->second].values.push_back(there->mountMeans[m]);
            }
        }
    Gathered gathered;
    for (CompleteMount& mount : mounts)
        if (mount.values.size() == found.loads.size())
            gathered.complete.push_back(std::move(mount));
        else
            ++gathered.incomplete;
    return gathered;
}

/// By group, of each mount what it differs by under each load from its own mean.
std::vector<Groups> aboutOwnMean(const std::vector<CompleteMount>& mounts, std::size_t loads) {
    std::map<std::int64_t, std::size_t> groupAt;
    for (const CompleteMount& mount : mounts) groupAt.try_emplace(mount.group.id, groupAt.size());
    std::vector<Groups> about(loads, Groups(groupAt.size()));
    for (const CompleteMount& mount : mounts)
        for (std::size_t l = 0; l < loads; ++l)
            about[l][groupAt[mount.group.id]].push_back(mount.values[l] - mean(mount.values));
    return about;
}

/// Greenhouse and Geisser's ε, of the covariance of loads within groups.
double sphericity(const std::vector<Groups>& about) {
    double trace = 0, squares = 0;
    for (std::size_t i = 0; i < about.size(); ++i)
        for (std::size_t j = 0; j < about.size(); ++j) {
            double covariance = 0;
            for (std::size_t g = 0; g < about[i].size(); ++g) {
                const double mine = mean(about[i][g]), other = mean(about[j][g]);
                for (std::size_t m = 0; m < about[i][g].size(); ++m)
                    covariance += (about[i][g][m] - mine) * (about[j][g][m] - other);
            }
            trace += i == j ? covariance : 0;
            squares += covariance * covariance;
        }
    return trace * trace / (static_cast<double>(about.size() - 1) * squares);
}

/// The sums of squares of group × load and of load × mount are those of one-way analyses of the loads.
std::optional<LoadInteraction> interactionOf(const std::vector<CompleteMount>& mounts, std::size_t loads) {
    if (loads < 2) return std::nullopt;
    const auto about = aboutOwnMean(mounts, loads);
    double between = 0, within = 0;
    for (const Groups& groups : about) {
        const auto anova = oneWayAnova(groups);
        if (!anova) return std::nullopt; // no mount beside another
        between += anova->betweenSs;
        within += anova->withinSs;
    }
    if (!(within > 0)) return std::nullopt;
    const auto g = static_cast<double>(about.front().size()), l = static_cast<double>(loads);
    const double df1 = (g - 1) * (l - 1), df2 = (static_cast<double>(mounts.size()) - g) * (l - 1);
    LoadInteraction found{fTest(between / df1 / (within / df2), df1, df2), std::nullopt};
    if (loads == 2) return found;
    const double epsilon = sphericity(about);
    found.pGg = fisherUpper(found.test.f, epsilon * df1, epsilon * df2);
    return found;
}

Comparison compareMeans(const std::vector<CompleteMount>& mounts, const CompareOptions& options,
                        bool anyBound) {
    std::set<std::int64_t> groups;
    std::vector<RunValue> values;
    for (const CompleteMount& mount : mounts) {
        groups.insert(mount.group.id);
        values.push_back({mount.group, mount.mount, mean(mount.values)});
    }
    if (groups.size() < 2)
        throw InputError(anyBound ? "compare-no-complete.limit" : "compare-no-complete", {});
    return compare(values, options);
}

void addCells(SeveralLoads& found, std::size_t load) {
    for (std::size_t g = 0; g < found.groups.size(); ++g)
        if (const GroupSummary* group = groupIn(found.perLoad[load], found.groups[g].id))
            found.grid.push_back({load, g, group->mounts, group->mean, group->ci});
}

/// Of a pair under one load: below 0, a is better; nothing where both are not told apart.
double betterBy(const Judged& judged, const Named& a, const Named& b) {
    if (!judged.comparison) return 0;
    const double sign = judged.comparison->options.lowerIsBetter ? 1 : -1;
    for (const PairComparison& pair : judged.comparison->pairs) {
        if (pair.verdict != Verdict::different || !pair.difference) continue;
        const std::int64_t first = judged.comparison->groups[pair.a].id;
        const std::int64_t second = judged.comparison->groups[pair.b].id;
        if (first == a.id && second == b.id) return sign * *pair.difference;
        if (first == b.id && second == a.id) return -sign * *pair.difference;
    }
    return 0;
}

void addOrderChanges(SeveralLoads& found) {
    for (std::size_t a = 0; a < found.groups.size(); ++a)
        for (std::size_t b = a + 1; b < found.groups.size(); ++b)
            for (std::size_t i = 0; i < found.loads.size(); ++i)
                for (std::size_t j = i + 1; j < found.loads.size(); ++j) {
                    const double here = betterBy(found.perLoad[i], found.groups[a], found.groups[b]);
                    const double there = betterBy(found.perLoad[j], found.groups[a], found.groups[b]);
                    if (!(here * there < 0)) continue;
                    found.orderChanges.push_back({found.groups[a], found.groups[b],
                                                  found.loads[here < 0 ? i : j],
                                                  found.loads[here < 0 ? j : i]});
                }
}

} // namespace

SeveralLoads compareLoads(const std::vector<LoadRun>& runs, const CompareOptions& options) {
    SeveralLoads found;
    std::map<std::int64_t, std::vector<RunValue>> byLoad;
    for (const LoadRun& one : runs) {
        addNew(found.loads, one.load);
        addNew(found.groups, one.run.group);
        byLoad[one.load.id].push_back(one.run);
    }
    for (std::size_t i = 0; i < found.loads.size(); ++i) {
        found.perLoad.push_back(judge(byLoad[found.loads[i].id], options));
        addCells(found, i);
    }
    const auto bound = censoredGroups(found.perLoad);
    const Gathered mounts = gatherMounts(found, options.mountsKnown, bound);
    found.completeMounts = static_cast<int>(mounts.complete.size());
    found.means = compareMeans(mounts.complete, options, !bound.empty());
    found.interaction = interactionOf(mounts.complete, found.loads.size());
    addOrderChanges(found);
    if (mounts.incomplete > 0)
        addFlag(found.means.flags,
                makeFlag(Severity::warn, "incomplete-mounts", {{"count", mounts.incomplete}}));
    if (!bound.empty())
        addFlag(found.means.flags,
                makeFlag(Severity::warn, "limit-bound.groups", {{"bound", namesOf(found.groups, bound)}}));
    return found;
}

SeveralLoads compareLoads(const std::vector<TableRun>& runs, const std::vector<std::string>& loads,
                          CompareOptions options, const std::string& reference) {
    RunNaming named;
    Naming load;
    std::vector<LoadRun> read(runs.size());
    for (std::size_t i = 0; i < runs.size(); ++i) read[i] = {named(runs[i]), load(loads[i])};
    if (!reference.empty()) options.reference = named.group(reference).id;
    return compareLoads(read, options);
}

} // namespace ibuki
