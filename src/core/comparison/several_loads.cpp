// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/several_loads.h"

#include "core/base/input_error.h"
#include "core/comparison/naming.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"

#include <algorithm>
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

std::set<std::int64_t> censoredGroups(const std::vector<LoadRun>& runs) {
    std::set<std::int64_t> bound;
    for (const LoadRun& one : runs)
        if (one.run.censored) bound.insert(one.run.group.id);
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

/// Of groups that are not left out; in order of first appearance.
Gathered gatherMounts(const std::vector<LoadRun>& runs, const std::vector<Named>& loads, bool mountsKnown,
                      const std::set<std::int64_t>& leftOut) {
    struct Seen {
        Named group, mount;
        std::map<std::int64_t, std::vector<double>> values; ///< by load
    };
    std::vector<Seen> mounts;
    std::map<std::pair<std::int64_t, std::int64_t>, std::size_t> placeOf;
    for (const LoadRun& one : runs) {
        if (leftOut.contains(one.run.group.id)) continue;
        std::size_t place = mounts.size();
        if (mountsKnown)
            place = placeOf.try_emplace({one.run.group.id, one.run.mount.id}, place).first->second;
        if (place == mounts.size()) mounts.push_back({one.run.group, one.run.mount, {}});
        mounts[place].values[one.load.id].push_back(one.run.value);
    }
    Gathered found;
    for (const Seen& mount : mounts) {
        if (mount.values.size() < loads.size()) {
            ++found.incomplete;
            continue;
        }
        found.complete.push_back({mount.group, mount.mount, {}});
        for (const Named& load : loads)
            found.complete.back().values.push_back(mean(mount.values.at(load.id)));
    }
    return found;
}

/// Sums of squares of load × mount within groups and of group × load, each mount's mean taken out.
std::optional<LoadInteraction> interactionOf(const std::vector<CompleteMount>& mounts, std::size_t loads) {
    std::map<std::int64_t, std::vector<std::vector<double>>> groups; // of each mount what it differs by load
    for (const CompleteMount& mount : mounts) {
        std::vector<double> about = mount.values;
        const double own = mean(about);
        for (double& value : about) value -= own;
        groups[mount.group.id].push_back(std::move(about));
    }
    const auto g = static_cast<double>(groups.size()), l = static_cast<double>(loads);
    const auto n = static_cast<double>(mounts.size());
    if (!(n > g) || loads < 2) return std::nullopt;
    std::vector<double> all(loads);
    std::map<std::int64_t, std::vector<double>> means;
    for (const auto& [id, members] : groups) {
        auto& ours = means.emplace(id, std::vector<double>(loads)).first->second;
        for (const auto& member : members)
            for (std::size_t i = 0; i < loads; ++i) {
                ours[i] += member[i] / static_cast<double>(members.size());
                all[i] += member[i] / n;
            }
    }
    double between = 0;
    std::vector<std::vector<double>> within(loads, std::vector<double>(loads)); // centred in both directions
    for (const auto& [id, members] : groups)
        for (const auto& member : members)
            for (std::size_t i = 0; i < loads; ++i) {
                const double off = means[id][i] - all[i];
                between += off * off;
                for (std::size_t j = 0; j < loads; ++j)
                    within[i][j] += (member[i] - means[id][i]) * (member[j] - means[id][j]);
            }
    double trace = 0, squares = 0;
    for (std::size_t i = 0; i < loads; ++i) {
        trace += within[i][i];
        for (std::size_t j = 0; j < loads; ++j) squares += within[i][j] * within[i][j];
    }
    if (!(trace > 0)) return std::nullopt;
    const double df1 = (g - 1) * (l - 1), df2 = (n - g) * (l - 1);
    LoadInteraction found{fTest(between / df1 / (trace / df2), df1, df2), std::nullopt};
    const double epsilon = trace * trace / ((l - 1) * squares);
    if (loads > 2) found.pGg = fisherUpper(found.test.f, epsilon * df1, epsilon * df2);
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

void addCells(SeveralLoads& found, std::size_t load, const Judged& judged) {
    const Comparison* shown = judged.shown();
    for (std::size_t g = 0; shown && g < found.groups.size(); ++g)
        for (const GroupSummary& group : shown->groups)
            if (group.id == found.groups[g].id)
                found.grid.push_back({load, g, group.mounts, group.mean, group.ci});
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
        addCells(found, i, found.perLoad.back());
    }
    const auto bound = censoredGroups(runs);
    const Gathered mounts = gatherMounts(runs, found.loads, options.mountsKnown, bound);
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
