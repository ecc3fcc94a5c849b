// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The clock of a mount with its joint's temperature from the calibrated path of its study.

#include "core/clock/mount_history.h"

namespace ibuki {

MountHistory jointHistory(const Document& document, Id<Mount> mount);

} // namespace ibuki
