// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ageing/ageing_judgement.h"

namespace ibuki {

/// by hours; course may be nullptr: then it is judged from the mounts' changes alone.
BreakIn judgeBreakIn(const SeriesGroup& group, const ClockedCourse* course, const AgeingRules& rules);

/// Mounts with which a change that is none would be shown to be within ±margin with a chance of 0.9, for a
/// scatter sd of the mounts' changes: two one-sided tests at 5 % (Schuirmann 1987). Nothing beyond 60.
std::optional<int> mountsToShowSame(double sd, double margin);

} // namespace ibuki
