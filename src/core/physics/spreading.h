// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Spreading resistance of a centred rectangular source of even flux on a plate with adiabatic edges: the
// exact series (Yovanovich, Muzychka & Culham 1999; Muzychka, Culham & Yovanovich, J. Electron. Packag. 125,
// 2003), also for plates laid on each other with interfaces between, and the closed form by equivalent radii
// (Lee, Song, Au & Moran 1995). Both are what is added to the plates' even flow.

#include "core/quantity/plane.h"

#include <span>

namespace ibuki {

Extent overlapOf(const Extent& one, const Extent& other);

/// A plate of a pile, the heated one first, all of the same width and length.
struct Slab {
    double thicknessMm = 0;   ///< > 0
    double conductivity = 0;  ///< W/(m·K), > 0
    double belowMm2KPerW = 0; ///< of the interface on its far side, before the next one
};

/// Above the even flow, K/W.
struct SpreadingTerm {
    double meanKPerW = 0;   ///< mean over the source
    double centreKPerW = 0; ///< at its centre
};

/// By the series, to about 1e-9 of the sum: its part that does not depend on thickness and film is an
/// integral over Gaussians (1/β = 2/√π ∫ e^{−β²s²} ds makes the double sum a product), the rest converges as
/// e^{−2βt}. behindMm2KPerW ≥ 0: from the far face to the room, area-specific (1/h). A source as large as the
/// plate gives 0; it may not be larger in either direction.
SpreadingTerm seriesSpreading(const Extent& source, const Extent& plate, std::span<const Slab> slabs,
                              double behindMm2KPerW);

/// Lee's closed form of one slab, good to some per cent up to a source twice as long as wide.
SpreadingTerm leeSpreading(const Extent& source, const Extent& plate, const Slab& slab,
                           double behindMm2KPerW);

} // namespace ibuki
