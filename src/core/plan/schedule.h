// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Mounts laid into the evenings that the user has. What needs hands stays inside an evening, and hands that
// follow each other stay together; what runs by itself (soak, rest over night) may go on while nobody is
// there.

#include "core/plan/step_occurrence.h"
#include "core/quantity/wall_clock.h"

#include <array>
#include <string>
#include <vector>

namespace ibuki {

struct Evenings {
    Instant firstDay; ///< its date counts
    double fromHour = 18;
    double hours = 4;
    Weekdays weekdays;
};

struct ScheduledMount {
    std::vector<StepOccurrence> steps; ///< with start and end
    Instant start;
    Instant end;
    int evening = 0; ///< from 1: the one in which the hands begin
};

struct Evening {
    Instant start;
    Instant end;
    int mounts = 0;           ///< begun in it
    double manualMinutes = 0; ///< spent in it
};

struct Schedule {
    std::vector<ScheduledMount> mounts; ///< in the order given
    std::vector<Evening> evenings;      ///< that are used
    double manualMinutes = 0;
    double benchMinutes = 0; ///< in which hands or the bench are busy
    std::vector<std::size_t>
        overlong; ///< mounts whose hands need more than an evening; they begin one all the same
};

/// Throws InputError (plan-weekdays, plan-hours) for evenings that never come.
Schedule schedule(const std::vector<std::vector<StepOccurrence>>& mounts, const Evenings& evenings,
                  const WallClock& clock = {});

/// A delay such as "24 h", "5 d", "2 w", "6 mo", "1 y". Hours are elapsed time; days and more keep the time
/// on the wall clock, months that are too short end on their last day.
Instant dueAfter(Instant local, const Delay& delay, const WallClock& clock = {});

} // namespace ibuki
