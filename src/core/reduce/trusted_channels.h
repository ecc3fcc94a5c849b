// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which channels of a log are believed.

#include "core/trace/metric_kind.h"
#include "core/trace/trace.h"

#include <vector>

namespace ibuki {

/// Power of the metric's device; nullptr when it was not logged.
const Channel* powerChannel(const Trace& trace, Metric metric);

/// Sensors that do not move while another of their role moves by more than 5 K.
std::vector<const Channel*> stuckSensors(const Trace& trace);

} // namespace ibuki
