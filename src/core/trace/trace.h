// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A log as computation sees it: one repaired time axis and channels with roles, all of the same length, in
// canonical units (°C, W, MHz, rpm). A cell that was not logged is NaN, IEEE's own mark for no number.

#include "core/quantity/instant.h"
#include "core/trace/role.h"

#include <string>
#include <vector>

namespace ibuki {

struct Channel {
    std::string column; ///< header as in the file
    Unit fileUnit = Unit::none;
    Role role = Role::ignore;
    int index = 0; ///< place among the channels of the same role
    std::vector<double> values;
    std::vector<std::string> words; ///< only of a column without numbers; then values is empty
    bool operator==(const Channel&) const = default;
};

/// What was found and repaired on the way to the time axis.
struct TimeAxisReport {
    int clockJumps = 0;
    int gaps = 0;
    int duplicatesDropped = 0;
    bool operator==(const TimeAxisReport&) const = default;
};

/// A room log with a clock of its own, laid beside a trace.
struct ProbeAlignment {
    double shiftS = 0;       ///< added to the probe's clock
    double uncertaintyS = 0; ///< standard
    bool byHand = false;
    double zoneS = 0; ///< the part of the shift that is whole hours: summer time or another zone
    double cover = 1; ///< share of the log that the probe saw; below a half its room is not taken
    bool isTaken() const { return cover >= 0.5; }
    bool operator==(const ProbeAlignment&) const = default;
};

struct Trace {
    std::vector<double> timeS; ///< seconds since the first sample
    std::vector<Channel> channels;
    std::optional<Instant> start; ///< when the stamps carry a date
    TimeAxisReport axis;
    std::int64_t impossible = 0;         ///< cells that no such sensor can read; they are NaN
    std::optional<ProbeAlignment> probe; ///< then the ambient channel is the probe's

    std::size_t samples() const { return timeS.size(); }
    double durationS() const { return timeS.empty() ? 0.0 : timeS.back(); }
};

std::vector<const Channel*> channelsOf(const Trace& trace, Role role);
const Channel* firstChannel(const Trace& trace, Role role);

/// Median sampling interval in seconds; 0 with fewer than two samples.
double medianIntervalS(const Trace& trace);

} // namespace ibuki
