// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/spare_time.h"

#include <algorithm>
#include <deque>

namespace ibuki {
namespace {

constexpr double leastStretchMinutes = 10;

/// The longest stretch of the mount in which nobody is needed, cut to the evenings.
std::optional<SpareTime> longestStretch(const ScheduledMount& mount, std::size_t index,
                                        const std::vector<Evening>& evenings) {
    std::optional<SpareTime> longest;
    for (std::size_t i = 0; i < mount.steps.size();) {
        std::size_t end = i;
        while (end < mount.steps.size() && mount.steps[end].unattended) ++end;
        if (end > i)
            for (const Evening& evening : evenings) {
                const SpareTime stretch{index,
                                        std::max(*mount.steps[i].start, evening.start),
                                        std::min(*mount.steps[end - 1].end, evening.end),
                                        {}};
                if (stretch.minutes() >= leastStretchMinutes
                    && (!longest || stretch.minutes() > longest->minutes()))
                    longest = stretch;
            }
        i = std::max(end, i + 1);
    }
    return longest;
}

/// What can be made ready for the next mount while this one is on the bench; it cannot wait for later.
std::vector<SpareWork> preparation(const Material* next) {
    const SpareWork cleaning{{"spare-work.cleaning", {}}, 3};
    if (!next) return {cleaning};
    const auto made = [&](const char* code, double minutes) {
        return SpareWork{{code, {{"material", next->name}}}, minutes};
    };
    switch (next->kind) {
    case MaterialClass::gapPad:
    case MaterialClass::sheet:
    case MaterialClass::phaseChange:
        return {made("spare-work.cut", 8), cleaning};
    case MaterialClass::liquidMetal:
        return {made("spare-work.mask", 10), cleaning};
    default:
        return {made("spare-work.weigh", 3), cleaning};
    }
}

/// Takes the work from the front of `from` as far as it fits.
template <class Work> void fill(SpareTime& stretch, double& left, Work& from) {
    while (!from.empty() && from.front().minutes <= left) {
        left -= from.front().minutes;
        stretch.work.push_back(from.front());
        from.erase(from.begin());
    }
}

} // namespace

std::vector<SpareTime> spareTimes(const Schedule& schedule, const std::vector<const Material*>& materials) {
    std::vector<SpareTime> spare;
    std::deque<SpareWork> paperwork; // waits for the next stretch when there is no time
    for (std::size_t i = 0; i < schedule.mounts.size(); ++i) {
        paperwork.push_back({{"spare-work.card", {}}, 4});
        if (i > 0) paperwork.push_back({{"spare-work.log", {}}, 5});
        auto stretch = longestStretch(schedule.mounts[i], i, schedule.evenings);
        if (!stretch) continue;
        double left = stretch->minutes();
        if (i + 1 < schedule.mounts.size()) {
            auto next = preparation(materials.at(i + 1));
            fill(*stretch, left, next);
        }
        fill(*stretch, left, paperwork);
        spare.push_back(std::move(*stretch));
    }
    return spare;
}

} // namespace ibuki
