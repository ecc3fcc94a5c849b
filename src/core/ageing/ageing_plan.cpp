// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/ageing_plan.h"

#include "core/design/design.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr std::size_t mostDelays = 8;

Delay delayOf(double hours) {
    const auto rounded = [hours](double unit) { return static_cast<int>(std::lround(hours / unit)); };
    if (hours < 36) return {std::max(1, rounded(1)), Delay::Unit::hours};
    if (hours < 14 * 24) return {rounded(24), Delay::Unit::days};
    if (hours < 60 * 24) return {rounded(7 * 24), Delay::Unit::weeks};
    return {rounded(30.4 * 24), Delay::Unit::months};
}

} // namespace

std::vector<Delay> delaysAt(const std::vector<double>& hours) {
    std::vector<Delay> delays;
    for (const double one : hours) {
        if (one < 0.75) continue; // that is the first run itself
        const Delay delay = delayOf(one);
        if (std::find(delays.begin(), delays.end(), delay) == delays.end()) delays.push_back(delay);
    }
    while (delays.size() > mostDelays) // thinned out in the middle, first and last stay
        delays.erase(delays.begin() + static_cast<std::ptrdiff_t>(delays.size() / 2));
    return delays;
}

int planMountsToFollow(Edit& edit, const Question& question, const GroupAgeing& ageing) {
    const Design design = designOf(edit.document(), question);
    std::optional<std::size_t> cell;
    for (std::size_t i = 0; i < design.cells.size(); ++i)
        if (design.cells[i].level.value == ageing.group.id) cell = i;
    if (!cell) return 0;
    int planned = 0;
    for (const DesignUnit& unit : design.units)
        if (unit.cell == cell && !unit.mount && !unit.skipped) ++planned;
    const int needed = ageing.breakIn.neededMounts.value_or(ageing.breakIn.mounts + 1);
    const int missing = needed - ageing.breakIn.mounts - planned;
    for (int i = 0; i < missing; ++i) addMount(edit, question, *cell, false);
    Plan plan = planFor(edit.document(), question.study);
    if (plan.followUps.empty()) {
        std::vector<double> hours;
        for (const MountSeries& mount : ageing.group.mounts)
            for (const AgeingPoint& point : mount.points) hours.push_back(point.clock.hours.value_or(0));
        std::sort(hours.begin(), hours.end());
        plan.followUps = delaysAt(hours);
        putPlan(edit, plan);
    }
    layFollowUps(edit, plan);
    return std::max(0, missing);
}

} // namespace ibuki
