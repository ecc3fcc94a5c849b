// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a study's plan puts into a calendar: one event an evening with its mounts, one a follow-up.

#include "core/domain/document.h"
#include "core/domain/study.h"
#include "store/calendar/calendar.h"

namespace ibuki {

/// Evenings of planned slots and follow-ups that are still to come; empty when nothing is planned. Throws
/// InputError (follow-up, zone-unknown).
std::vector<CalendarEvent> planEvents(const Document& document, Id<Study> study);

} // namespace ibuki
