// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/time_axis.h"

#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double halfHourS = 1'800;
constexpr std::size_t mostEvents = 400;

/// Stamps of coarse resolution (several rows in one whole second) are spread evenly up to the next stamp.
void spreadCoarseStamps(std::vector<double>& stamps) {
    std::size_t begin = 0;
    std::size_t repeats = 0;
    for (std::size_t i = 1; i < stamps.size(); ++i) repeats += stamps[i] == stamps[i - 1] ? 1 : 0;
    if (repeats * 3 < stamps.size()) return; // a few repeats are duplicates, not a coarse clock
    while (begin < stamps.size()) {
        std::size_t end = begin;
        while (end < stamps.size() && stamps[end] == stamps[begin]) ++end;
        const double next = end < stamps.size() ? stamps[end] : stamps[begin] + 1.0;
        const double span = next > stamps[begin] ? std::min(next - stamps[begin], 1.0) : 1.0;
        const double first = stamps[begin];
        for (std::size_t i = begin; i < end; ++i)
            stamps[i] = first + span * static_cast<double>(i - begin) / static_cast<double>(end - begin);
        begin = end;
    }
}

/// The median of the finite ones; a few wild ones do not move it.
double middleOf(std::span<const double> stampsS) {
    std::vector<double> finite;
    for (double stamp : stampsS)
        if (std::isfinite(stamp)) finite.push_back(stamp);
    if (finite.empty()) return 0;
    const auto middle = finite.begin() + static_cast<std::ptrdiff_t>(finite.size() / 2);
    std::nth_element(finite.begin(), middle, finite.end());
    return *middle;
}

bool goesOn(std::span<const double> witness, std::size_t before, std::size_t after) {
    if (witness.empty()) return true;
    return !(std::abs(witness[after] - witness[before]) > 3.0); // NaN counts as going on
}

} // namespace

TimeAxis repairTimeAxis(std::span<const double> stampsS, bool clockOnly, std::span<const double> witness) {
    TimeAxis axis;
    std::vector<double> stamps;
    const double middle = middleOf(stampsS);
    for (std::size_t i = 0; i < stampsS.size(); ++i) {
        if (!std::isfinite(stampsS[i])) continue;
        if (!(std::abs(stampsS[i] - middle) <= longestRecordingS / 2)) {
            if (axis.events.size() < mostEvents)
                axis.events.push_back({TimeAxisEvent::Kind::impossible, i, stampsS[i] - middle});
            continue;
        }
        stamps.push_back(stampsS[i]);
        axis.keep.push_back(i);
    }
    if (stamps.empty()) return axis;
    spreadCoarseStamps(stamps);

    std::vector<double> steps;
    for (std::size_t i = 1; i < stamps.size(); ++i)
        if (stamps[i] > stamps[i - 1]) steps.push_back(stamps[i] - stamps[i - 1]);
    const double typical = steps.empty() ? 1.0 : median(steps);

    const auto tell = [&](TimeAxisEvent::Kind kind, std::size_t i, double step) {
        if (axis.events.size() < mostEvents) axis.events.push_back({kind, axis.keep[i], step});
    };
    std::vector<std::size_t> kept{axis.keep.front()};
    axis.timeS.push_back(0.0);
    for (std::size_t i = 1; i < stamps.size(); ++i) {
        double step = stamps[i] - stamps[i - 1];
        if (clockOnly && step < -secondsPerDay / 2) step += secondsPerDay;
        if (step == 0.0) {
            ++axis.report.duplicatesDropped;
            tell(TimeAxisEvent::Kind::duplicate, i, step);
            continue;
        }
        const double halfHours = std::round(step / halfHourS);
        const bool setForward = halfHours >= 1 && std::abs(step - typical - halfHours * halfHourS) <= 2.0
                                && goesOn(witness, kept.back(), axis.keep[i]);
        if (step < 0 || setForward) {
            ++axis.report.clockJumps;
            tell(TimeAxisEvent::Kind::clockJump, i, step);
            step = typical;
        } else if (step > 5 * typical && step > 10.0) {
            ++axis.report.gaps;
            tell(TimeAxisEvent::Kind::gap, i, step);
        }
        axis.timeS.push_back(axis.timeS.back() + step);
        kept.push_back(axis.keep[i]);
    }
    axis.keep = std::move(kept);
    return axis;
}

} // namespace ibuki
