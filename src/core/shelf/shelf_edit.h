// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What leaves the shelf takes along what only belonged to it.

#include "core/domain/edit.h"
#include "core/domain/material.h"

namespace ibuki {

/// With its off-cuts, pictures and acknowledgements. The caller has seen that no application took from it.
void removeLot(Edit& edit, Id<Lot> lot);

/// With its packages and acknowledgements. The caller has seen that it has no lot and stands in no study.
void removeMaterial(Edit& edit, Id<Material> material);

} // namespace ibuki
