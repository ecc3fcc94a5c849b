// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// When to come back to mounts, and when machines are due, as events. A check has the uid that the plan's
// calendar gives it: the later file updates the earlier.

#include "core/ageing/reapplication.h"
#include "core/setup/follow_ups.h"
#include "store/calendar/calendar.h"

namespace ibuki {

/// What is lost or past is left out.
std::vector<CalendarEvent> dueEvents(const std::vector<DueCheck>& checks, const Reapplication& due,
                                     Instant now);

} // namespace ibuki
