// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a run is held against while it rises.

#include "core/conduct/rise_curve.h"
#include "core/domain/study.h"
#include "store/project/project.h"

#include <stop_token>

namespace ibuki {

/// Curves of the mounts made before in the study, from their recordings; those there are when it is asked to
/// stop. Throws what reading a recording throws.
EarlierRises earlierRises(const Project& project, Id<Study> study, std::optional<Id<Slot>> slot,
                          Metric metric, const std::stop_token& stop = {});

} // namespace ibuki
