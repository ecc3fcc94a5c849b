// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// trace → steady figures with flags, the one call behind the window and the command. Pure.

#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

namespace ibuki {

/// Never throws on doubtful data: what cannot be told is empty and flagged.
Reduction reduce(const Trace& trace, const ReduceSettings& settings = {});

/// The same judged by every metric that the trace has (Reduction::others), so that what is stored with a run
/// does not depend on the question that is being looked at.
Reduction reduceByEveryMetric(const Trace& trace, const ReduceSettings& settings = {});

} // namespace ibuki
