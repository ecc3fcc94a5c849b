// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The next mount as a card to print and lay beside the bench: big, with boxes to tick.

#include "core/plan/mount_brief.h"

#include <string>

namespace ibuki {

/// Self-contained HTML of one page, in the subset that Qt's text documents lay out.
std::string mountCardHtml(const MountBrief& brief);

/// "0.16 g as a dot, 0.6 N·m, from tube A": dose, pattern, torque and lot in one line; empty when none is
/// known.
std::string manualWorkLine(const MountBrief& brief);

/// "Soak 20 min at sustained 180 W, until less than 0.2 K is left to rise"
std::string stepLine(const StepOccurrence& step);

} // namespace ibuki
