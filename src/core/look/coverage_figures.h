// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a mask says in figures (docs/methods.md, "Looks"). Pixels need not be square. A bare region is
// 4-connected; regions of at most `voidsAboveMm2` count in the shares but are told neither as voids nor as
// trapped.

#include "core/look/picture.h"

namespace ibuki {

inline constexpr double voidsAboveMm2 = 0.2;

struct BareRegion {
    double areaMm2 = 0;
    double xMm = 0; ///< of its centroid, from the face's middle, to the right
    double yMm = 0; ///< up
    bool touchesEdge = false;
};

struct CoverageFigures {
    double covered = 0;              ///< shares of the area, 0 to 1
    double centre = 0;               ///< of the concentric rectangle of half the area
    double edge = 0;                 ///< of the rest
    std::array<double, 4> corners{}; ///< of rectangles of quarter sides, clockwise from the upper left
    std::vector<BareRegion> voids;   ///< largest first
    double largestBareCircleMm = 0;  ///< its diameter; the circle lies within the face
    int trappedVoids = 0;            ///< voids that do not touch the edge
};

/// Shares covered of the four rectangles of quarter sides, clockwise from the upper left.
std::array<double, 4> cornerShares(const CoverageMask& mask);

/// Throws InputError (look-face) for a face that has no size, (look-mask) for a mask without pixels.
CoverageFigures coverageFigures(const GreyPicture& mask, const Extent& face);

} // namespace ibuki
