// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study under several loads: each level's difference over power (docs/methods.md, D.19).

#include "core/evidence/evidence.h"
#include "core/series/sweep.h"

namespace ibuki {

struct PowerSweep {
    std::vector<SweepPoint> points; ///< one a run, in the groups of the design's cells
    std::optional<Lines> lines;
    std::optional<Message> reason; ///< when there are none
};

/// Fresh runs of the compared levels with a power, under whatever load; those at the temperature limit tell
/// no line. at: where gaps are told.
PowerSweep powerSweep(const Question& question, const Evidence& evidence, std::optional<double> atW = {});

} // namespace ibuki
