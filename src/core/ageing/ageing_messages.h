// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The sentences of a judgement, as codes and fields.

#include "core/ageing/ageing_judgement.h"

namespace ibuki {

/// The answer first: break-in, conditioning, wear with its date, what it goes with, what was taken out,
/// doubts.
std::vector<Message> ageingMessages(const GroupAgeing& ageing, const AgeingRules& rules);

/// What drawing mounts anew says of the threshold.
Message drawnMessage(AgeingClock clock, const Interval& interval);

/// What the bench did by itself, and what was left out of the courses.
std::vector<Message> benchMessages(const AgeingSeries& series);

} // namespace ibuki
