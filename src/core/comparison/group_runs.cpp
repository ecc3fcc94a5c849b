// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/group_runs.h"

#include "core/distributions/summary.h"

#include <algorithm>
#include <map>

namespace ibuki {

std::vector<GroupRuns> gather(const std::vector<RunValue>& runs, bool mountsKnown) {
    std::vector<GroupRuns> groups;
    std::map<std::int64_t, std::size_t> groupAt;
    std::map<std::pair<std::int64_t, std::int64_t>, std::size_t> mountAt;
    for (const RunValue& run : runs) {
        const auto [at, isNew] = groupAt.try_emplace(run.group.id, groups.size());
        if (isNew) groups.push_back({run.group, {}});
        auto& mounts = groups[at->second].mounts;
        std::size_t mount = mounts.size();
        if (mountsKnown) mount = mountAt.try_emplace({run.group.id, run.mount.id}, mount).first->second;
        if (mount == mounts.size()) mounts.push_back({run.mount, run.block, run.order, 0, {}, false});
        const auto before = static_cast<double>(mounts[mount].values.size());
        mounts[mount].covariate += (run.covariate - mounts[mount].covariate) / (before + 1);
        mounts[mount].values.push_back(run.value);
        mounts[mount].censored = mounts[mount].censored || run.censored;
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
        group.censoredMounts += mount.censored ? 1 : 0;
        group.mountMeans.push_back(mean(mount.values));
        group.mountsInOrder.push_back(mount.mount);
    }
    const auto [low, high] = std::minmax_element(group.mountMeans.begin(), group.mountMeans.end());
    group.sd = sampleSd(group.mountMeans);
    group.best = lowerIsBetter ? *low : *high;
    group.median = median(group.mountMeans);
    if (group.censoredMounts == 0)
        group.mean = mean(group.mountMeans);
    else
        group.bound = mean(group.mountMeans);
    return group;
}

} // namespace ibuki
