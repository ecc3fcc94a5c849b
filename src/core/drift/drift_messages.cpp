// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drift/drift_messages.h"

#include "core/quantity/span.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

using Messages = std::vector<Message>;

Fields changeFields(const GroupDrift& drift, const Interval& interval) {
    const BreakIn& seen = drift.breakIn;
    return {{"group", drift.group.name},
            {"change", seen.changeK},
            {"lo", interval.lo},
            {"hi", interval.hi},
            {"until", spanMessage(seen.untilHours)},
            {"count", seen.mounts}};
}

void tellBreakIn(const GroupDrift& drift, const DriftRules& rules, Messages& told) {
    const BreakIn& seen = drift.breakIn;
    const bool saidElsewhere = drift.wearsOut || (drift.conditioning && drift.conditioning->cycles);
    if (saidElsewhere && seen.says != BreakIn::Says::same) return;
    const auto with = [&](Fields fields) {
        fields.push_back({"margin", rules.sameWithin.value});
        return fields;
    };
    switch (seen.says) {
    case BreakIn::Says::unknown:
        return;
    case BreakIn::Says::same:
        told.push_back({seen.measurable ? "drift-break-in.same-measurable" : "drift-break-in.same",
                        with(changeFields(drift, *seen.interval90))});
        return;
    case BreakIn::Says::settles: {
        const auto& interval = seen.settled->interval;
        Fields fields = with(changeFields(drift, *seen.interval95));
        fields.push_back({"time", spanMessage(*seen.settled->at)});
        fields.push_back({"from", spanMessage(interval ? interval->lo : *seen.settled->at)});
        fields.push_back({"to", spanMessage(interval ? interval->hi : *seen.settled->at)});
        told.push_back({interval ? "drift-break-in.settles" : "drift-break-in.settles-about", fields});
        told.push_back({"drift-wait",
                        {{"group", drift.group.name},
                         {"time", spanMessage(interval ? interval->hi : *seen.settled->at)}}});
        return;
    }
    case BreakIn::Says::changes:
        told.push_back({"drift-break-in.changes", with(changeFields(drift, *seen.interval95))});
        return;
    case BreakIn::Says::notResolved:
        told.push_back({"drift-break-in.not-resolved", with(changeFields(drift, *seen.interval90))});
        if (seen.neededMounts && *seen.neededMounts > seen.mounts)
            told.push_back({"drift-needs.mounts", {{"count", *seen.neededMounts}}});
        else if (!seen.neededMounts && seen.mounts > 1)
            told.push_back({"drift-needs.scatter", {}});
        return;
    }
}

void tellConditioning(const GroupDrift& drift, const DriftRules& rules, Messages& told) {
    if (!drift.conditioning) return;
    const Conditioning& seen = *drift.conditioning;
    std::optional<Celsius> melts;
    bool assumed = false;
    for (const MountSeries& one : drift.group.mounts) {
        if (one.history->melts()) melts = one.history->melts();
        assumed = assumed || one.history->jointAssumed();
    }
    if (seen.neverMelted && seen.hottestJointC) {
        told.push_back(
            {"drift-conditioning.never",
             {{"group", drift.group.name}, {"hottest", *seen.hottestJointC}, {"melts", melts->value}}});
    } else if (seen.cycles) {
        Fields fields{
            {"group", drift.group.name}, {"within", rules.settledWithin.value}, {"cycles", *seen.cycles}};
        if (seen.interval) {
            fields.push_back({"lo", seen.interval->lo});
            fields.push_back({"hi", seen.interval->hi});
        }
        told.push_back({seen.interval ? "drift-conditioning.cycles" : "drift-conditioning.about", fields});
        told.push_back({"drift-wait.cycles",
                        {{"group", drift.group.name},
                         {"cycles", std::ceil(seen.interval ? seen.interval->hi : *seen.cycles)}}});
    } else if (!seen.neverMelted) {
        told.push_back({"drift-conditioning.open", {{"group", drift.group.name}}});
    }
    if (assumed) told.push_back({"drift-joint-assumed", {}});
}

/// So much of a clock: a time, or a number of cycles.
Message amountMessage(DriftClock clock, double value) {
    return clock == DriftClock::cycles ? Message{"time-span.cycles", {{"value", value}}} : spanMessage(value);
}

/// The earliest and the latest that credible models tell; more than one of them.
void tellSpread(const DriftTime& time, DriftClock clock, Messages& told) {
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
        told.push_back({"drift-models.or-never", {{"from", amountMessage(clock, earliest)}}});
    else
        told.push_back({"drift-models.spread",
                        {{"from", amountMessage(clock, earliest)}, {"to", amountMessage(clock, latest)}}});
}

void tellWear(const GroupDrift& drift, const DriftRules& rules, Messages& told) {
    const ClockedCourse* course = drift.lead();
    if (!course) return;
    const DriftClock clock = course->clock;
    const double last = course->course.last();
    const double change = course->course.changeAt(last);
    const auto interval = course->course.changeIntervalAt(last, 0.95);
    if (!interval) return;
    Fields fields{{"group", drift.group.name},
                  {"change", change},
                  {"lo", interval->lo},
                  {"hi", interval->hi},
                  {"until", amountMessage(clock, last)},
                  {"threshold", rules.threshold.value}};
    if (course->course.fit()->model == DriftModel::constant) {
        if (drift.breakIn.says == BreakIn::Says::same) return; // that says more
        fields.push_back({"p", course->course.noChangeP});
        told.push_back({"drift-wear.none", fields});
        return;
    }
    if (!drift.wearsOut) {
        if (change < 0) told.push_back({"drift-wear.falls", fields});
        return;
    }
    const DriftTime& time = course->threshold;
    told.push_back({"drift-wear.rises", fields});
    if (time.at && time.interval && !time.farBeyond) {
        fields.push_back({"time", amountMessage(clock, *time.at)});
        fields.push_back({"from", amountMessage(clock, time.interval->lo)});
        fields.push_back({"to", amountMessage(clock, time.interval->hi)});
        told.push_back({time.beyondReadings ? "drift-reaches.extrapolated" : "drift-reaches.within", fields});
    } else if (time.notBefore) {
        fields.push_back({"from", amountMessage(clock, *time.notBefore)});
        told.push_back({"drift-reaches.not-before", fields});
    } else {
        told.push_back({"drift-reaches.not-told", fields});
    }
    tellSpread(time, clock, told);
}

} // namespace

std::vector<Message> driftMessages(const GroupDrift& drift, const DriftRules& rules) {
    Messages told;
    if (drift.whyNot) told.push_back(*drift.whyNot);
    tellBreakIn(drift, rules, told);
    tellConditioning(drift, rules, told);
    tellWear(drift, rules, told);
    if (drift.wearsOut && drift.goesWith) {
        switch (*drift.goesWith) {
        case DriftClock::hours:
            told.push_back({"drift-goes-with.hours", {}});
            break;
        case DriftClock::loadHours:
            told.push_back({"drift-goes-with.load", {}});
            break;
        default:
            told.push_back({"drift-goes-with.cycles", {}});
        }
    } else if (drift.wearsOut && drift.clocks.size() > 1) {
        told.push_back({"drift-goes-with.not-told", {}});
    }
    if (drift.roomTakenOut) told.push_back({"drift-taken-out.room", {}});
    if (drift.fanTakenOut) told.push_back({"drift-taken-out.fan", {}});
    if (const ClockedCourse* course = drift.by(DriftClock::hours))
        for (const Flag& flag : course->course.flags) told.push_back(flag.message);
    return told;
}

Message drawnMessage(DriftClock clock, const Interval& interval) {
    return {"drift-drawn-anew",
            {{"from", amountMessage(clock, interval.lo)}, {"to", amountMessage(clock, interval.hi)}}};
}

std::vector<Message> benchMessages(const DriftSeries& series) {
    Messages told;
    const BenchDrift& bench = series.bench;
    const auto readings = [](const SeriesGroup& group) { return group.readings() > 0; };
    if (std::none_of(series.groups.begin(), series.groups.end(), readings)) return told;
    if (bench.interval) {
        const Fields fields{{"change", bench.spanDays * *bench.kelvinPerDay},
                            {"lo", bench.spanDays * bench.interval->lo},
                            {"hi", bench.spanDays * bench.interval->hi},
                            {"time", spanMessage(bench.spanDays * hoursPerDay)},
                            {"count", bench.checks}};
        told.push_back({bench.takenOut ? "drift-bench.taken-out" : "drift-bench.none", fields});
    } else {
        told.push_back({"drift-bench.unknown", {}});
    }
    told.push_back(series.perWatt ? Message{"drift-as.per-watt", {{"power", series.powerW}}}
                                  : Message{"drift-as.kelvin", {}});
    int excluded = 0;
    for (const Message& left : series.leftOut) {
        if (left.code == "drift-left.excluded")
            ++excluded;
        else if (std::find(told.begin(), told.end(), left) == told.end())
            told.push_back(left);
    }
    if (excluded > 0) told.push_back({"drift-left-excluded", {{"count", excluded}}});
    return told;
}

} // namespace ibuki
