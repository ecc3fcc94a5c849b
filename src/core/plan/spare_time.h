// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What hands can do while the bench runs by itself: work that needs no bench, laid into the stretches of a
// schedule in which nobody is needed.

#include "core/base/message.h"
#include "core/domain/material.h"
#include "core/plan/schedule.h"

#include <optional>
#include <vector>

namespace ibuki {

struct SpareWork {
    Message what;       ///< "cut the pieces for Slate 25"
    double minutes = 0; ///< usual, of practised hands
};

/// From the end of hands to the next hands, as far as the evening lasts.
struct SpareTime {
    std::size_t mount = 0; ///< index into the schedule
    Instant start;
    Instant end;
    std::vector<SpareWork> work; ///< in this order

    double minutes() const { return static_cast<double>(end.ms - start.ms) / 60'000; }
};

/// One stretch a mount at most, the longest of those inside the evenings; none shorter than ten minutes.
/// materials: of each mount of the schedule, nullptr for one as found. First what makes the next mount ready;
/// then the mount's card and the log of the one before, which wait for the next stretch when there is no
/// time.
std::vector<SpareTime> spareTimes(const Schedule& schedule, const std::vector<const Material*>& materials);

} // namespace ibuki
