// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Between the shelf and the cutting plan: which pieces a bench needs of a material, which sheets and off-cuts
// of it are there, and what the shelf holds after the cut.

#include "core/domain/bench.h"
#include "core/domain/edit.h"
#include "core/domain/material.h"
#include "core/shelf/cut.h"

namespace ibuki {

/// One piece for each of the alike faces at the sites that take the material, as thick as the material: pads
/// and putty go to memory, power stages and backplate, sheets and film to `site` (may be nullptr). Sites
/// without a size are left out.
std::vector<CutPiece> piecesFor(const Document& document, const Configuration& configuration,
                                const Material& material, const Site* site);

/// A sheet of the shelf, or one of its off-cuts.
struct ShelfSheet {
    CutSheet sheet;
    Id<Lot> lot;
    std::optional<Id<Offcut>> offcut;
};

/// Whole sheets and unused off-cuts of the material's lots that state a sheet's size. What is left of a lot
/// counts its off-cuts in; whole sheets are what remains beside them.
std::vector<ShelfSheet> sheetsOf(const Document& document, const Material& material, Instant now);

/// The shelf after the cut: off-cuts used are marked, those worth keeping (both sides at least leastMm) are
/// added, and each lot has less by all that became pieces or waste. `sheets` are the job's, in its order;
/// those without a lot (nothing) belong to no shelf and are skipped. Returns how many off-cuts were kept.
int keepCut(Edit& edit, const CutPlan& plan, const std::vector<std::optional<ShelfSheet>>& sheets,
            double leastMm, Instant now);

} // namespace ibuki
