// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/ageing_curves.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr int steps = 80;

/// What the course says that the mount was at the group's first time, from all of its readings.
double startOf(const MountSeries& mount, AgeingClock clock, const AgeingCourse* course) {
    if (!course) return mount.points.front().valueK;
    double sum = 0;
    for (const AgeingPoint& point : mount.points)
        sum += point.valueK - course->fit()->change(point.clock.of(clock).value_or(0), course->first());
    return sum / static_cast<double>(mount.points.size());
}

} // namespace

AgeingCurves ageingCurves(const GroupAgeing& ageing, AgeingClock clock) {
    const ClockedCourse* clocked = ageing.by(clock);
    const AgeingCourse* course = clocked ? &clocked->course : nullptr;
    if (course && course->slopesDiffer && course->fit()->model == AgeingModel::constant)
        course = nullptr; // mounts that change unlike each other have no common course by this clock
    AgeingCurves made;
    for (const MountSeries& mount : ageing.group.mounts) {
        if (mount.points.empty()) continue;
        const double start = startOf(mount, clock, course);
        auto& dots = made.mounts.emplace_back();
        for (const AgeingPoint& point : mount.points)
            if (const auto t = point.clock.of(clock))
                dots.push_back({mount.mount, point.run, point.at, *t, point.valueK - start});
    }
    if (!course) return made;
    const double span = course->last() - course->first();
    for (int i = 0; i <= steps; ++i) { // denser where things begin
        const double share = static_cast<double>(i) / steps;
        const double t = course->first() + span * share * share;
        made.t.push_back(t);
        made.changeK.push_back(course->changeAt(t));
        made.band.push_back(
            course->changeIntervalAt(t, 0.95).value_or(Interval{made.changeK.back(), made.changeK.back()}));
    }
    if (course->fit()->model == AgeingModel::constant || !ageing.wearsOut) return made;
    const double reaches = clocked->threshold.at.value_or(course->last());
    const double end = std::min(course->first() + 2 * span, std::max(course->last(), 1.05 * reaches));
    if (end <= course->last()) return made;
    for (int i = 0; i <= steps; ++i) {
        const double t = course->last() + (end - course->last()) * i / steps;
        made.aheadT.push_back(t);
        made.aheadK.push_back(course->changeAt(t));
    }
    return made;
}

} // namespace ibuki
