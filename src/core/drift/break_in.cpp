// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drift/break_in.h"

#include "core/stats/distributions.h"
#include "core/stats/pair_family.h"
#include "core/stats/power.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

constexpr double sameTime = 1.2; ///< readings up to this much later stand for the same time

/// The reading of a mount at about that hour: the last that is not later.
const DriftPoint* pointAt(const MountSeries& mount, double hours) {
    const DriftPoint* found = nullptr;
    for (const DriftPoint& point : mount.points)
        if (*point.clock.hours <= hours * sameTime + 0.5) found = &point;
    return found;
}

/// Changes of mounts from their first reading to the last hour that all of them reach.
std::vector<double> changesOf(const SeriesGroup& group, double& untilHours) {
    std::vector<const MountSeries*> followed;
    untilHours = std::numeric_limits<double>::infinity();
    for (const MountSeries& mount : group.mounts)
        if (mount.points.size() > 1) {
            followed.push_back(&mount);
            untilHours = std::min(untilHours, *mount.points.back().clock.hours);
        }
    std::vector<double> changes;
    for (const MountSeries* mount : followed)
        if (const DriftPoint* last = pointAt(*mount, untilHours); last && last != &mount->points.front())
            changes.push_back(last->valueK - mount->points.front().valueK);
    return changes;
}

} // namespace

std::optional<int> mountsToShowSame(double sd, double margin) {
    constexpr int most = 60;
    for (int m = 2; m <= most; ++m)
        if (equivalencePower(0, margin, sd / std::sqrt(static_cast<double>(m)), m - 1, 0.05) >= 0.9) return m;
    return std::nullopt;
}

BreakIn judgeBreakIn(const SeriesGroup& group, const ClockedCourse* course, const DriftRules& rules) {
    BreakIn told;
    const auto changes = changesOf(group, told.untilHours);
    told.mounts = static_cast<int>(changes.size());
    const DriftFit* fit = course ? course->course.fit() : nullptr;
    if (changes.size() >= 2) {
        const double sd = *sampleSd(changes);
        const double df = static_cast<double>(changes.size()) - 1;
        const double se = sd / std::sqrt(static_cast<double>(changes.size()));
        told.changeK = mean(changes);
        told.interval90 = studentInterval(told.changeK, se, df, 0.9);
        told.interval95 = studentInterval(told.changeK, se, df, 0.95);
        told.neededMounts = mountsToShowSame(sd, rules.sameWithin.value);
    } else if (changes.size() == 1) {
        told.changeK = changes.front();
        if (fit) {
            told.changeK = course->course.changeAt(course->course.last());
            told.interval90 = course->course.changeIntervalAt(course->course.last(), 0.9);
            told.interval95 = course->course.changeIntervalAt(course->course.last(), 0.95);
        }
    }
    if (!told.interval90) return told;
    told.measurable = !told.interval95->contains(0);
    if (told.interval90->within(rules.sameWithin.value)) {
        told.says = BreakIn::Says::same;
        return told;
    }
    if (course && fit && fit->tau)
        told.settled = timeToSettle(*course->sample, course->course, rules.settledWithin.value);
    const bool ends = course && told.settled && told.settled->at && *told.settled->at < course->course.last();
    told.says = ends              ? BreakIn::Says::settles
                : told.measurable ? BreakIn::Says::changes
                                  : BreakIn::Says::notResolved;
    return told;
}

} // namespace ibuki
