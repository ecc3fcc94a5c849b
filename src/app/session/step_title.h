// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
// How a step is called wherever the window lists steps.

#include "core/plan/step_occurrence.h"

#include <QString>

namespace ibuki {

/// "soak, sustained 180 W", "cycle 2, heating"; without the load's name where it stands beside it.
QString stepTitle(const StepOccurrence& step, bool load = true);

} // namespace ibuki
