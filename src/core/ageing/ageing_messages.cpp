// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ageing/ageing_messages.h"

#include "core/quantity/span.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

using Messages = std::vector<Message>;

Fields changeFields(const GroupAgeing& ageing, const Interval& interval) {
    const BreakIn& seen = ageing.breakIn;
    return {{"group", ageing.group.name},
            {"change", seen.changeK},
            {"lo", interval.lo},
            {"hi", interval.hi},
            {"until", spanMessage(seen.untilHours)},
            {"count", seen.mounts}};
}

void tellBreakIn(const GroupAgeing& ageing, const AgeingRules& rules, Messages& reported) {
    const BreakIn& seen = ageing.breakIn;
    const bool saidElsewhere = ageing.wearsOut || (ageing.conditioning && ageing.conditioning->cycles);
    if (saidElsewhere && seen.says != BreakIn::Says::same) return;
    const auto with = [&](Fields fields) {
        fields.push_back({"margin", rules.sameWithin.value});
        return fields;
    };
    switch (seen.says) {
    case BreakIn::Says::unknown:
        return;
    case BreakIn::Says::same:
        reported.push_back({seen.measurable ? "drift-break-in.same-measurable" : "drift-break-in.same",
                            with(changeFields(ageing, *seen.interval90))});
        return;
    case BreakIn::Says::settles: {
        const auto& interval = seen.settled->interval;
        Fields fields = with(changeFields(ageing, *seen.interval95));
        fields.push_back({"time", spanMessage(*seen.settled->at)});
        fields.push_back({"from", spanMessage(interval ? interval->lo : *seen.settled->at)});
        fields.push_back({"to", spanMessage(interval ? interval->hi : *seen.settled->at)});
        reported.push_back({interval ? "drift-break-in.settles" : "drift-break-in.settles-about", fields});
        reported.push_back({"drift-wait",
                            {{"group", ageing.group.name},
                             {"time", spanMessage(interval ? interval->hi : *seen.settled->at)}}});
        return;
    }
    case BreakIn::Says::changes:
        reported.push_back({"drift-break-in.changes", with(changeFields(ageing, *seen.interval95))});
        return;
    case BreakIn::Says::notResolved:
        reported.push_back({"drift-break-in.not-resolved", with(changeFields(ageing, *seen.interval90))});
        if (seen.neededMounts && *seen.neededMounts > seen.mounts)
            reported.push_back({"drift-needs.mounts", {{"count", *seen.neededMounts}}});
        else if (!seen.neededMounts && seen.mounts > 1)
            reported.push_back({"drift-needs.scatter", {}});
        return;
    }
}

void tellConditioning(const GroupAgeing& ageing, const AgeingRules& rules, Messages& reported) {
    if (!ageing.conditioning) return;
    const Conditioning& seen = *ageing.conditioning;
    std::optional<Celsius> melts;
    bool assumed = false;
    for (const MountSeries& one : ageing.group.mounts) {
        if (one.history->melts()) melts = one.history->melts();
        assumed = assumed || one.history->jointAssumed();
    }
    if (seen.neverMelted && seen.hottestJointC) {
        reported.push_back(
            {"drift-conditioning.never",
             {{"group", ageing.group.name}, {"hottest", *seen.hottestJointC}, {"melts", melts->value}}});
    } else if (seen.cycles) {
        Fields fields{
            {"group", ageing.group.name}, {"within", rules.settledWithin.value}, {"cycles", *seen.cycles}};
        if (seen.interval) {
            fields.push_back({"lo", seen.interval->lo});
            fields.push_back({"hi", seen.interval->hi});
        }
        reported.push_back(
            {seen.interval ? "drift-conditioning.cycles" : "drift-conditioning.about", fields});
        reported.push_back({"drift-wait.cycles",
                            {{"group", ageing.group.name},
                             {"cycles", std::ceil(seen.interval ? seen.interval->hi : *seen.cycles)}}});
    } else if (!seen.neverMelted) {
        reported.push_back({"drift-conditioning.open", {{"group", ageing.group.name}}});
    }
    if (assumed) reported.push_back({"drift-joint-assumed", {}});
}

/// So much of a clock: a time, or a number of cycles.
Message amountMessage(AgeingClock clock, double value) {
    return clock == AgeingClock::cycles ? Message{"time-span.cycles", {{"value", value}}}
                                        : spanMessage(value);
}

/// The earliest and the latest that credible models tell; more than one of them.
void tellSpread(const AgeingTime& time, AgeingClock clock, Messages& reported) {
    if (time.models.size() < 2) return;
    double earliest = std::numeric_limits<double>::infinity();
    double latest = 0;
    bool never = false;
    for (const auto& one : time.models) {
        never = never || !one.at;
        if (!one.at) continue;
        earliest = std::min(earliest, *one.at);
        latest = std::max(latest, *one.at);
    }
    if (!std::isfinite(earliest)) return;
    constexpr double alike = 1.1; ///< times, that is no spread worth a sentence
    if (!never && latest < alike * earliest) return;
    if (never)
        reported.push_back({"drift-models.or-never", {{"from", amountMessage(clock, earliest)}}});
    else
        reported.push_back(
            {"drift-models.spread",
             {{"from", amountMessage(clock, earliest)}, {"to", amountMessage(clock, latest)}}});
}

void tellWear(const GroupAgeing& ageing, const AgeingRules& rules, Messages& reported) {
    const ClockedCourse* course = ageing.lead();
    if (!course) return;
    const AgeingClock clock = course->clock;
    const double last = course->course.last();
    const double change = course->course.changeAt(last);
    const auto interval = course->course.changeIntervalAt(last, 0.95);
    if (!interval) return;
    Fields fields{{"group", ageing.group.name},
                  {"change", change},
                  {"lo", interval->lo},
                  {"hi", interval->hi},
                  {"until", amountMessage(clock, last)},
                  {"threshold", rules.threshold.value}};
    if (course->course.fit()->model == AgeingModel::constant) {
        if (ageing.breakIn.says == BreakIn::Says::same) return; // that says more
        fields.push_back({"p", course->course.noChangeP});
        reported.push_back({"drift-wear.none", fields});
        return;
    }
    if (!ageing.wearsOut) {
        if (change < 0) reported.push_back({"drift-wear.falls", fields});
        return;
    }
    const AgeingTime& time = course->threshold;
    reported.push_back({"drift-wear.rises", fields});
    if (time.at && time.interval && !time.farBeyond) {
        fields.push_back({"time", amountMessage(clock, *time.at)});
        fields.push_back({"from", amountMessage(clock, time.interval->lo)});
        fields.push_back({"to", amountMessage(clock, time.interval->hi)});
        reported.push_back(
            {time.beyondReadings ? "drift-reaches.extrapolated" : "drift-reaches.within", fields});
    } else if (time.notBefore) {
        fields.push_back({"from", amountMessage(clock, *time.notBefore)});
        reported.push_back({"drift-reaches.not-before", fields});
    } else {
        reported.push_back({"drift-reaches.not-told", fields});
    }
    tellSpread(time, clock, reported);
}

} // namespace

std::vector<Message> ageingMessages(const GroupAgeing& ageing, const AgeingRules& rules) {
    Messages reported;
    if (ageing.reason) reported.push_back(*ageing.reason);
    tellBreakIn(ageing, rules, reported);
    tellConditioning(ageing, rules, reported);
    tellWear(ageing, rules, reported);
    if (ageing.wearsOut && ageing.goesWith) {
        switch (*ageing.goesWith) {
        case AgeingClock::hours:
            reported.push_back({"drift-goes-with.hours", {}});
            break;
        case AgeingClock::loadHours:
            reported.push_back({"drift-goes-with.load", {}});
            break;
        default:
            reported.push_back({"drift-goes-with.cycles", {}});
        }
    } else if (ageing.wearsOut && ageing.clocks.size() > 1) {
        reported.push_back({"drift-goes-with.not-told", {}});
    }
    if (ageing.ambientTakenOut) reported.push_back({"drift-taken-out.room", {}});
    if (ageing.fanTakenOut) reported.push_back({"drift-taken-out.fan", {}});
    if (const ClockedCourse* course = ageing.by(AgeingClock::hours))
        for (const Flag& flag : course->course.flags) reported.push_back(flag.message);
    return reported;
}

Message drawnMessage(AgeingClock clock, const Interval& interval) {
    return {"drift-drawn-anew",
            {{"from", amountMessage(clock, interval.lo)}, {"to", amountMessage(clock, interval.hi)}}};
}

std::vector<Message> benchMessages(const AgeingSeries& series) {
    Messages reported;
    const BenchDrift& bench = series.bench;
    const auto readings = [](const SeriesGroup& group) { return group.readings() > 0; };
    if (std::none_of(series.groups.begin(), series.groups.end(), readings)) return reported;
    if (bench.interval) {
        const Fields fields{{"change", bench.spanDays * *bench.kelvinPerDay},
                            {"lo", bench.spanDays * bench.interval->lo},
                            {"hi", bench.spanDays * bench.interval->hi},
                            {"time", spanMessage(bench.spanDays * hoursPerDay)},
                            {"count", bench.checks}};
        reported.push_back({bench.takenOut ? "drift-bench.taken-out" : "drift-bench.none", fields});
    } else {
        reported.push_back({"drift-bench.unknown", {}});
    }
    reported.push_back(series.perWatt ? Message{"drift-as.per-watt", {{"power", series.powerW}}}
                                      : Message{"drift-as.kelvin", {}});
    int excluded = 0;
    for (const Message& left : series.leftOut) {
        if (left.code == "drift-left.excluded")
            ++excluded;
        else if (std::find(reported.begin(), reported.end(), left) == reported.end())
            reported.push_back(left);
    }
    if (excluded > 0) reported.push_back({"drift-left-excluded", {{"count", excluded}}});
    return reported;
}

} // namespace ibuki
