// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a camera over the simulated bench would see of a mount: the film that its dose and pattern spread to,
// on the site's metal, in this bench's light. For the demo, benches to practise on, and tests; nothing of it
// is measured.

#include "core/inspect/looks.h"
#include "core/simulate/photograph.h"

namespace ibuki {

struct MadeUpLook {
    LookSide side = LookSide::chip;
    double coveredShare = 1; ///< of the dose that was meant
    double lean = 0;         ///< 0 to 1: how much the cooler is tilted, so that one corner stays thin
    double leanAngle = 0.8;  ///< towards which corner, radians from the right, up positive
    std::uint64_t seed = 1;
    int width = 800;
    int height = 600;
};

/// Nothing where the material makes no film that could be seen (liquid metal, solder).
std::optional<PhotographScene> madeUpScene(const Document& document, Id<Mount> mount, const Site& site,
                                           const MadeUpLook& look);

} // namespace ibuki
