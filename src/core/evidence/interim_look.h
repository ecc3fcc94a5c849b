// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Looks at a verdict while mounts are still to come, and what they cost (docs/methods.md, "Looks").

#include "core/domain/document.h"
#include "core/domain/study.h"

namespace ibuki {

/// Looks beyond the declared ones after which mounts were added.
bool hasUnplannedLook(const Document& document, Id<Study> study);

/// Nominal α of each of `looks` declared looks that keeps the error of all of them at 0.05 (Pocock 1977); for
/// another α its share α/looks (Bonferroni).
double nominalAlpha(double alpha, int looks);

/// Looks declared with the plan; 1 without one.
int plannedLooks(const Document& document, Id<Study> study);

} // namespace ibuki
