// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Readings that no such sensor can have: beyond what silicon, rooms, supplies and fans do, the zero of a
// sensor that dropped out, a spike of one or two samples that no heat could carry (docs/methods.md,
// "Impossible values").

#include "core/trace/trace.h"

namespace ibuki {

struct ImpossibleCells {
    std::string column;
    std::size_t firstRow = 0;
    double first = 0; ///< the first such reading, canonical unit
    std::int64_t count = 0;
};

/// Blanks them (NaN) in channels with a role and adds them to the trace's count; one entry a channel.
std::vector<ImpossibleCells> blankImpossible(Trace& trace);

} // namespace ibuki
