// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/break_in.h"

#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/distributions/power.h"
#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

constexpr double sameTime = 1.2; ///< readings up to this much later stand for the same time

/// The reading of a mount at about that hour: the last that is not later.
const AgeingPoint* pointAt(const MountSeries& mount, double hours) {
    const AgeingPoint* found = nullptr;
    for (const AgeingPoint& point : mount.points)
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
        if (const AgeingPoint* last = pointAt(*mount, untilHours); last && last != &mount->points.front())
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

BreakIn judgeBreakIn(const SeriesGroup& group, const ClockedCourse* course, const AgeingRules& rules) {
    BreakIn reported;
    const auto changes = changesOf(group, reported.untilHours);
    reported.mounts = static_cast<int>(changes.size());
    const AgeingFit* fit = course ? course->course.fit() : nullptr;
    if (changes.size() >= 2) {
        const double sd = *sampleSd(changes);
        const double df = static_cast<double>(changes.size()) - 1;
        const double se = sd / std::sqrt(static_cast<double>(changes.size()));
        reported.changeK = mean(changes);
        reported.interval90 = studentInterval(reported.changeK, se, df, 0.9);
        reported.interval95 = studentInterval(reported.changeK, se, df, 0.95);
        reported.neededMounts = mountsToShowSame(sd, rules.sameWithin.value);
    } else if (changes.size() == 1) {
        reported.changeK = changes.front();
        if (fit) {
            reported.changeK = course->course.changeAt(course->course.last());
            reported.interval90 = course->course.changeIntervalAt(course->course.last(), 0.9);
            reported.interval95 = course->course.changeIntervalAt(course->course.last(), 0.95);
        }
    }
    if (!reported.interval90) return reported;
    reported.measurable = !reported.interval95->contains(0);
    if (reported.interval90->within(rules.sameWithin.value)) {
        reported.says = BreakIn::Says::same;
        return reported;
    }
    if (course && fit && fit->tau)
        reported.settled = timeToSettle(*course->sample, course->course, rules.settledWithin.value);
    const bool ends =
        course && reported.settled && reported.settled->at && *reported.settled->at < course->course.last();
    reported.says = ends                  ? BreakIn::Says::settles
                    : reported.measurable ? BreakIn::Says::changes
                                          : BreakIn::Says::notResolved;
    return reported;
}

} // namespace ibuki
