// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Readings of a run that no temperature sensor gives: those that a log has as columns.

#include "core/domain/edit.h"
#include "core/domain/mount.h"
#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

namespace ibuki {

/// Columns of score, noise and power at the wall become readings of the run: means over its steady window,
/// over its load where there is none.
void addColumnReadings(Edit& edit, const Run& run, const Trace& trace, const LoadReduction& load);

} // namespace ibuki
