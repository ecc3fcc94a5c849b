// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A trace as the text a logger would write: fixed decimals, so that the same trace gives the same bytes.

#include "core/trace/trace.h"

#include <string>

namespace ibuki {

/// Comma separated, decimal point, "Time [s]" or, when the trace has a start, ISO stamps.
std::string logText(const Trace& trace);

/// The same with seconds since the first sample and the fewest decimals that read back as the same number.
/// Columns tell the unit that their values are in.
std::string exactLogText(const Trace& trace);

} // namespace ibuki
