// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Looks at the demo's joints: photographs of the simulated bench, measured as any other.

#include "store/project/project.h"

namespace ibuki {

/// At the mounts of a study, the first `most` of them; one corner of the bench is thin again and again.
void addLooks(Project& project, Id<Study> study, int most);

} // namespace ibuki
