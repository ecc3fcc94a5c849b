// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Evenings and follow-ups as an iCalendar file (RFC 5545) that calendars open, and the rules of a time zone
// for the core's wall clock. Zones are IANA names, their rules the system's.

#include "core/quantity/wall_clock.h"

#include <string>
#include <vector>

namespace ibuki {

struct CalendarEvent {
    std::string uid; ///< the same event keeps it, so that a second import updates the first
    std::string summary;
    std::string description;
    Instant start; ///< on the wall clock
    Instant end;
};

/// Throws InputError (zone-unknown) for a name that the system does not know.
WallClock wallClockOf(const std::string& zone);

/// Names to choose from, sorted, UTC first.
std::vector<std::string> zoneNames();

/// stamp: when the file is made, universal time. Throws InputError (zone-unknown).
std::string calendarText(const std::vector<CalendarEvent>& events, const std::string& zone, Instant stamp);

} // namespace ibuki
