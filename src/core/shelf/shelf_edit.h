// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What leaves the shelf takes along what only belonged to it.

#include "core/domain/edit.h"
#include "core/domain/material.h"

namespace ibuki {

/// Whether a mount has taken from it.
bool isUsed(const Document& document, const Lot& lot);
/// Whether it has a lot or stands in a study.
bool isUsed(const Document& document, const Material& material);

/// With its off-cuts, pictures and acknowledgements. Not of a used one.
void removeLot(Edit& edit, Id<Lot> lot);

/// With its packages and acknowledgements. Not of a used one.
void removeMaterial(Edit& edit, Id<Material> material);

} // namespace ibuki
