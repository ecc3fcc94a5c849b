// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/summary.h"
#include "core/reduce/probe.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double hourS = 3'600;
constexpr double summerTimeS =
    2 * hourS; ///< when the clocks as they stand are possible too: no further than this
constexpr double wellCovered = 0.8;
constexpr double calmK = 0.5; ///< a room that moves by less reads the same at any hour

/// Whether the room is one that the chip may have stood in: it is never colder than its room.
bool mayBeItsAmbient(const Trace& log, const Trace& probe, double shiftS) {
    const auto chip = metricSeries(log, chipChannels(log, {}), Metric::hottest);
    const Trace joined = withProbe(log, probe, {shiftS, 0, true});
    const Channel* room = firstChannel(joined, Role::ambient);
    if (!room || chip.empty()) return false;
    std::vector<double> over;
    for (std::size_t i = 0; i < chip.size(); ++i)
        if (std::isfinite(chip[i] - room->values[i])) over.push_back(chip[i] - room->values[i]);
    return !over.empty() && quantile(over, 0.05) > -2;
}

bool isCalm(const Trace& probe) {
    for (const Channel& channel : probe.channels) {
        std::vector<double> read;
        for (double v : channel.values)
            if (std::isfinite(v)) read.push_back(v);
        if (!read.empty() && quantile(read, 0.99) - quantile(read, 0.01) > calmK) return false;
    }
    return true;
}

/// Whole and half hours, the nearest first, at which the probe saw the log.
std::vector<double> possibleZones(const Trace& log, const Trace& probe, int mostHalves) {
    std::vector<double> zones;
    for (int halves = 1; halves <= mostHalves; ++halves)
        for (const double zoneS : {halves * hourS / 2, -halves * hourS / 2})
            if (probeCover(log, probe, zoneS) >= wellCovered && mayBeItsAmbient(log, probe, zoneS))
                zones.push_back(zoneS);
    // Clocks differ by whole hours far more often.
    std::stable_partition(zones.begin(), zones.end(), [](double s) { return std::fmod(s, hourS) == 0; });
    return zones;
}

ProbeAlignment alignedAt(const Trace& log, const Trace& probe, double zoneS, const ProbeFit& fit) {
    return {fit.shiftS, fit.uncertaintyS, false, zoneS, probeCover(log, probe, fit.shiftS)};
}

} // namespace

ProbeAlignment alignmentFor(const Trace& log, const Trace& probe, std::optional<double> statedShiftS) {
    if (statedShiftS) return {*statedShiftS, 0, true, 0, probeCover(log, probe, *statedShiftS)};
    const ProbeFit asTheyStand = alignProbe(log, probe);
    if (asTheyStand.found) return alignedAt(log, probe, 0, asTheyStand);
    const bool possible = probeCover(log, probe, 0) >= wellCovered;
    if (possible && isCalm(probe)) return alignedAt(log, probe, 0, asTheyStand);
    auto zones =
        possibleZones(log, probe, possible ? static_cast<int>(2 * summerTimeS / hourS) : 2 * mostZoneHours);
    if (possible) std::erase_if(zones, [](double s) { return std::fmod(s, hourS) != 0; });
    constexpr std::size_t mostFits = 8;
    for (std::size_t i = 0; i < std::min(zones.size(), mostFits); ++i)
        if (const ProbeFit fit = alignProbe(log, probe, zones[i]); fit.found)
            return alignedAt(log, probe, zones[i], fit);
    if (possible || zones.empty()) return alignedAt(log, probe, 0, asTheyStand);
    return alignedAt(log, probe, zones.front(), {false, zones.front(), 0});
}

} // namespace ibuki
