// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/ageing_judgement.h"

#include "core/ageing/ageing_messages.h"
#include "core/ageing/break_in.h"
#include "core/base/input_error.h"
#include "core/distributions/summary.h"
#include "core/domain/lookup.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace ibuki {
namespace {

constexpr double leastAmbientK = 2; ///< a smaller range of the room is not taken out
constexpr double leastFanShare = 0.03;

struct Besides {
    std::vector<std::vector<double>> columns;
    bool room = false;
    bool fan = false;
};

/// Of each reading, less the mean of its mount: benches differ in both, which is no season. Empty where it is
/// not known of every reading.
std::vector<double> withinMounts(const SeriesGroup& group, std::optional<double> AgeingPoint::*member) {
    std::vector<double> values;
    for (const MountSeries& mount : group.mounts) {
        double sum = 0;
        for (const AgeingPoint& point : mount.points) {
            if (!(point.*member)) return {};
            sum += *(point.*member);
        }
        for (const AgeingPoint& point : mount.points)
            values.push_back(*(point.*member) - sum / static_cast<double>(mount.points.size()));
    }
    return values;
}

/// The mean of what is known.
double meanOf(const SeriesGroup& group, std::optional<double> AgeingPoint::*member) {
    std::vector<double> values;
    for (const MountSeries& mount : group.mounts)
        for (const AgeingPoint& point : mount.points)
            if (point.*member) values.push_back(*(point.*member));
    return values.empty() ? 0 : mean(values);
}

/// Room and fan where they are known of every reading, vary inside mounts, and there are readings enough to
/// bear them.
Besides besidesOf(const SeriesGroup& group) {
    Besides made;
    const int readings = group.readings();
    const auto take = [&](std::optional<double> AgeingPoint::*member, double leastRange) {
        auto column = withinMounts(group, member);
        const int spare =
            readings - static_cast<int>(group.mounts.size()) - 6 - 2 * static_cast<int>(made.columns.size());
        if (column.empty() || spare < 0 || !(rangeOf(column) >= leastRange)) return false;
        made.columns.push_back(std::move(column));
        return true;
    };
    made.room = take(&AgeingPoint::ambientC, leastAmbientK);
    if (const double fan = std::abs(meanOf(group, &AgeingPoint::fan)); fan > 0)
        made.fan = take(&AgeingPoint::fan, leastFanShare * fan);
    return made;
}

std::optional<ClockedCourse> courseBy(AgeingClock clock, const SeriesGroup& group, const Besides& besides,
                                      double threshold) {
    std::vector<AgeingReading> readings;
    double least = 0;
    double most = 0;
    int mount = 0;
    for (const MountSeries& one : group.mounts) {
        for (const AgeingPoint& point : one.points) {
            const auto t = point.clock.of(clock);
            if (!t || *t < 0) return std::nullopt;
            if (readings.empty()) least = most = *t;
            least = std::min(least, *t);
            most = std::max(most, *t);
            readings.push_back({mount, *t, point.valueK});
        }
        ++mount;
    }
    if (readings.empty() || !(most > least)) return std::nullopt;
    ClockedCourse made{clock, std::make_shared<AgeingSample>(std::move(readings), besides.columns), {}, {}};
    made.course = ageingCourse(*made.sample);
    if (!made.course.fit()) return std::nullopt;
    made.threshold = timeToThreshold(*made.sample, made.course, threshold);
    return made;
}

/// The clock whose best model tells the same readings best, where it leads by more than 2.
std::optional<AgeingClock> bestClock(const std::vector<ClockedCourse>& clocks) {
    std::optional<AgeingClock> best;
    double first = std::numeric_limits<double>::infinity();
    double second = first;
    for (const ClockedCourse& one : clocks) {
        if (one.clock == AgeingClock::meltCycles) continue;
        const double aicc = *one.course.fit()->aicc;
        if (aicc < first) {
            second = first;
            first = aicc;
            best = one.course.fit()->model == AgeingModel::constant ? std::nullopt : std::optional(one.clock);
        } else {
            second = std::min(second, aicc);
        }
    }
    return second < std::numeric_limits<double>::infinity() && second - first > 2 ? best : std::nullopt;
}

std::optional<Conditioning> conditioningOf(const GroupAgeing& ageing, const AgeingRules& rules) {
    const auto& mounts = ageing.group.mounts;
    if (std::none_of(mounts.begin(), mounts.end(),
                     [](const MountSeries& one) { return one.history->melts().has_value(); }))
        return std::nullopt;
    Conditioning reported;
    reported.neverMelted = true;
    for (const MountSeries& one : mounts) {
        if (const auto hottest = one.history->hottestJointC())
            reported.hottestJointC = std::max(reported.hottestJointC.value_or(*hottest), *hottest);
        for (const AgeingPoint& point : one.points)
            if (point.clock.aboveMeltHours > 0) reported.neverMelted = false;
    }
    const ClockedCourse* course = ageing.by(AgeingClock::meltCycles);
    if (!course || !course->course.fit()->tau) return reported;
    const auto settled = timeToSettle(*course->sample, course->course, rules.settledWithin.value);
    if (settled) {
        reported.cycles = settled->at;
        reported.interval = settled->interval;
    }
    return reported;
}

/// Mean of a group's mounts at an hour, by the course from each mount's own readings.
double meanAt(const GroupAgeing& ageing, double hours) {
    const ClockedCourse* course = ageing.by(AgeingClock::hours);
    double sum = 0;
    int mounts = 0;
    for (const MountSeries& mount : ageing.group.mounts) {
        double own = 0;
        for (const AgeingPoint& point : mount.points)
            own += point.valueK - (course ? course->course.fit()->change(*point.clock.hours, hours) : 0);
        if (mount.points.empty()) continue;
        sum += own / static_cast<double>(mount.points.size());
        ++mounts;
    }
    return sum / std::max(1, mounts);
}

void compareAtEqualAge(AgeingJudgement& judged) {
    std::optional<double> hours;
    for (std::size_t i = 0; i < judged.groups.size(); ++i) {
        const ClockedCourse* course = judged.groups[i].by(AgeingClock::hours);
        if (!course) continue;
        hours = std::min(hours.value_or(course->course.last()), course->course.last());
        judged.atEqualAge.push_back({i, 0});
    }
    if (judged.atEqualAge.size() < 2) {
        judged.atEqualAge.clear();
        return;
    }
    judged.equalHours = hours;
    for (auto& one : judged.atEqualAge) one.meanK = meanAt(judged.groups[one.group], *hours);
    std::stable_sort(judged.atEqualAge.begin(), judged.atEqualAge.end(),
                     [](const auto& a, const auto& b) { return a.meanK < b.meanK; });
}

} // namespace

void drawMountsAnew(GroupAgeing& ageing, const AgeingRules& rules) {
    const ClockedCourse* lead = ageing.lead();
    if (!lead || !ageing.wearsOut) return;
    const auto interval = thresholdOverMounts(*lead->sample, lead->course, rules.threshold.value);
    if (interval) ageing.reported.push_back(drawnMessage(lead->clock, *interval));
}

GroupAgeing judgeGroup(SeriesGroup group, const AgeingRules& rules) {
    GroupAgeing judged;
    judged.group = std::move(group);
    const Besides besides = besidesOf(judged.group);
    judged.ambientTakenOut = besides.room;
    judged.fanTakenOut = besides.fan;
    for (const AgeingClock clock : ageingClocks)
        if (auto made = courseBy(clock, judged.group, besides, rules.threshold.value))
            judged.clocks.push_back(std::move(*made));
    const ClockedCourse* hours = judged.by(AgeingClock::hours);
    if (!judged.group.isFollowed())
        judged.reason = Message{"drift-not-followed", {{"group", judged.group.name}}};
    else if (!hours)
        judged.reason =
            Message{"drift-too-few", {{"group", judged.group.name}, {"count", judged.group.readings()}}};
    judged.breakIn = judgeBreakIn(judged.group, hours, rules);
    judged.goesWith = bestClock(judged.clocks);
    judged.conditioning = conditioningOf(judged, rules);
    if (const ClockedCourse* lead = judged.lead();
        lead && lead->course.fit()->model != AgeingModel::constant) {
        const double last = lead->course.last();
        const auto interval = lead->course.changeIntervalAt(last, 0.95);
        judged.wearsOut =
            interval && interval->lo > 0 && lead->course.changeAt(last) > rules.sameWithin.value;
    }
    judged.reported = ageingMessages(judged, rules);
    return judged;
}

const ClockedCourse* GroupAgeing::by(AgeingClock clock) const {
    for (const ClockedCourse& one : clocks)
        if (one.clock == clock) return &one;
    return nullptr;
}

const ClockedCourse* GroupAgeing::lead() const { return by(goesWith.value_or(AgeingClock::hours)); }

AgeingJudgement judgeAgeing(const Document& document, const Question& question, AgeingSeries series) {
    AgeingJudgement judged;
    judged.series = std::move(series);
    const Study* study = document.find(question.study);
    judged.rules = study ? ageingRulesOf(document, study->bench) : AgeingRules{};
    for (const SeriesGroup& group : judged.series.groups)
        judged.groups.push_back(judgeGroup(group, judged.rules));
    std::stable_partition(judged.groups.begin(), judged.groups.end(),
                          [](const GroupAgeing& one) { return one.group.isFollowed(); });
    compareAtEqualAge(judged);
    judged.bench = benchMessages(judged.series);
    return judged;
}

AgeingJudgement judgeAgeing(const Document& document, const Question& question) {
    return judgeAgeing(document, question, ageingSeries(document, question));
}

AgeingJudgement judgeFleet(const Document& document) {
    AgeingJudgement judged;
    std::map<std::int64_t, SeriesGroup> byMaterial;
    std::set<std::int64_t> seen; // a mount may fill slots of several studies
    for (const auto& [id, study] : document.all<Study>()) {
        const Question* question = firstQuestion(document, id);
        if (!question) continue;
        AgeingSeries series = ageingSeries(document, *question);
        for (SeriesGroup& group : series.groups) {
            if (!group.material) continue;
            SeriesGroup& own = byMaterial[group.material->value];
            own.id = group.material->value;
            own.material = group.material;
            own.kind = group.kind;
            if (const Material* material = document.find(*group.material)) own.name = material->name;
            for (MountSeries& mount : group.mounts)
                if (seen.insert(mount.mount.value).second) own.mounts.push_back(std::move(mount));
        }
    }
    for (auto& [id, group] : byMaterial)
        if (group.isFollowed()) judged.groups.push_back(judgeGroup(std::move(group), judged.rules));
    judged.bench = {Message{"drift-as.fleet", {}}};
    return judged;
}

} // namespace ibuki
