// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A log in few points: enough to count its cycles, its hours under load and above a temperature, long after
// its rows were put away.

#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

namespace ibuki {

/// Chip and power of the trace by straight lines: within 1 K and 5 % of the largest power of the means of 5 s
/// (wider where that needs more than 300 points). Empty without a chip temperature.
ThermalCourse thermalCourse(const Trace& trace);

} // namespace ibuki
