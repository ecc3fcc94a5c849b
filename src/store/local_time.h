// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/quantity/instant.h"

#include <ctime>

namespace ibuki {

/// What this machine's wall clock shows at a moment of its system clock.
Instant localTime(const timespec& moment);
Instant wallNow(); ///< what it shows now

} // namespace ibuki
