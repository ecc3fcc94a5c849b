// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Usual places of heat on a chip, none of them any product's: what is not in them is even.

#include "core/physics/heat_path.h"

namespace ibuki {

enum class PowerPlaces { even, middleCore, cornerCore, eightCores };

/// share: of the power, in the cores together; 0 to 1. Cores of 2 × 2 mm, smaller where the chip has no room:
/// eight of them in two columns.
std::vector<HeatSource> powerMap(PowerPlaces places, const Extent& chip, double powerW, double share);

} // namespace ibuki
