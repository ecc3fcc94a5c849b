// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/joint_reading.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

const SideComparison* sideBy(const std::vector<SideComparison>& sides, SideResponse response) {
    const auto at = std::find_if(sides.begin(), sides.end(),
                                 [&](const SideComparison& side) { return side.response == response; });
    return at != sides.end() ? &*at : nullptr;
}

double standing(const GroupSummary& group) {
    return group.adjusted.value_or(group.mean.value_or(group.bound.value_or(group.median.value_or(0))));
}

/// Best first. Where groups were held at the limit, by K/W where it is known: their temperatures are alike.
std::vector<const GroupSummary*> ranked(const Evidence& evidence, const std::vector<SideComparison>& sides) {
    const Comparison* by = evidence.shown();
    if (isHeldAtLimit(evidence))
        if (const SideComparison* side = sideBy(sides, SideResponse::perWatt)) by = side->shown();
    std::vector<const GroupSummary*> groups;
    for (const GroupSummary& group : by->groups) groups.push_back(&group);
    std::stable_sort(groups.begin(), groups.end(), [](const GroupSummary* a, const GroupSummary* b) {
        return standing(*a) < standing(*b);
    });
    const auto reference = by->options.reference;
    std::stable_partition(groups.begin(), groups.end(),
                          [&](const GroupSummary* group) { return reference && group->id == *reference; });
    return groups;
}

bool isCensored(const Evidence& evidence, std::int64_t id) {
    const Comparison* shown = evidence.shown();
    return std::any_of(shown->groups.begin(), shown->groups.end(),
                       [&](const GroupSummary& group) { return group.id == id && group.censoredMounts > 0; });
}

TemperatureReading temperatureOf(const Evidence& evidence, const JointReading& reading) {
    if (isCensored(evidence, reading.first) && isCensored(evidence, reading.second))
        return TemperatureReading::atLimit;
    if (!reading.pair || !reading.pair->difference) return TemperatureReading::open;
    const bool small = reading.pair->size == DifferenceSize::withinMargin && !reading.pair->provisional;
    if (reading.pair->verdict == Verdict::equivalent || small) return TemperatureReading::same;
    if (reading.pair->verdict == Verdict::unresolved) return TemperatureReading::open;
    return *reading.pair->difference < 0 ? TemperatureReading::cooler : TemperatureReading::warmer;
}

bool isFan(SideResponse response) {
    return response == SideResponse::fanSpeed || response == SideResponse::fanShare;
}

/// The gain where the response tells the two apart by what may matter; from one mount each, where it differs
/// by more than the margin.
std::optional<SideGain> gainOf(const SideComparison& side, std::int64_t first, std::int64_t second) {
    const Comparison* shown = side.shown();
    if (!shown) return std::nullopt;
    SideGain gain;
    const GroupSummary* ours = nullptr;
    const GroupSummary* theirs = nullptr;
    for (const GroupSummary& group : shown->groups) {
        if (group.id == first) ours = &group;
        if (group.id == second) theirs = &group;
    }
    if (!ours || !theirs) return std::nullopt;
    if (standing(*theirs) > 0) gain.reference = standing(*theirs);
    if (side.comparison) {
        const auto pair = pairBetween(*side.comparison, first, second);
        if (!pair || !pair->ci || pair->verdict != Verdict::different) return std::nullopt;
        if (pair->size == DifferenceSize::withinMargin) return std::nullopt; // measurable, and of no matter
        gain.difference = *pair->difference;
        gain.ci = pair->ci;
    } else {
        gain.difference = standing(*ours) - standing(*theirs);
        if (ours->mounts > 1 || theirs->mounts > 1 || std::abs(gain.difference) <= side.margin)
            return std::nullopt;
    }
    gain.isMerit = side.better == Better::higher ? gain.difference > 0 : gain.difference < 0;
    if (side.response == SideResponse::power) gain.isMerit = gain.difference > 0;
    return gain;
}

/// Power is heat that was carried where both are held at the limit; elsewhere it is no merit, and K/W repeats
/// the temperature.
bool tells(const SideComparison& side, TemperatureReading temperature) {
    const bool atLimit = temperature == TemperatureReading::atLimit;
    if (side.response == SideResponse::power || side.response == SideResponse::perWatt) return atLimit;
    return side.better != Better::neither;
}

JointReading::Fan fanOf(const JointReading& reading, const std::vector<SideComparison>& sides) {
    if (reading.temperature != TemperatureReading::cooler
        && reading.temperature != TemperatureReading::warmer)
        return JointReading::Fan::still;
    for (const SideGain& gain : reading.gains)
        if (isFan(sides[gain.side].response)) {
            const bool cooler = reading.temperature == TemperatureReading::cooler;
            return (gain.difference < 0) == cooler ? JointReading::Fan::hides : JointReading::Fan::helps;
        }
    return JointReading::Fan::still;
}

} // namespace

bool isHeldAtLimit(const Evidence& evidence) {
    const Comparison* shown = evidence.shown();
    return shown && std::any_of(shown->groups.begin(), shown->groups.end(), [](const GroupSummary& group) {
               return group.censoredMounts > 0;
           });
}

std::vector<JointReading> jointReadings(const Evidence& evidence, const std::vector<SideComparison>& sides) {
    std::vector<JointReading> readings;
    if (!evidence.shown()) return readings;
    const auto groups = ranked(evidence, sides);
    for (std::size_t i = 1; i < groups.size(); ++i) {
        JointReading reading{groups[0]->id, groups[i]->id, groups[0]->name, groups[i]->name};
        if (evidence.comparison)
            reading.pair = pairBetween(*evidence.comparison, reading.first, reading.second);
        reading.temperature = temperatureOf(evidence, reading);
        // Levels of different levels of a second factor are not compared with each other.
        if (!reading.pair && reading.temperature != TemperatureReading::atLimit) continue;
        for (std::size_t s = 0; s < sides.size(); ++s)
            if (tells(sides[s], reading.temperature))
                if (auto gain = gainOf(sides[s], reading.first, reading.second)) {
                    gain->side = s;
                    reading.gains.push_back(*gain);
                }
        reading.fan = fanOf(reading, sides);
        if (!reading.gains.empty()) readings.push_back(std::move(reading));
    }
    return readings;
}

} // namespace ibuki
