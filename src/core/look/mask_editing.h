// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Correcting a mask by hand. Places are pixels of the mask; each returns what was touched, so that little is
// drawn anew while a brush moves.

#include "core/look/picture.h"

namespace ibuki {

struct MaskPart {
    int left = 0;
    int top = 0;
    int width = 0; ///< 0: nothing was touched
    int height = 0;
};

/// A round brush drawn from one place to another.
MaskPart brush(GreyPicture& mask, const PlanePoint& from, const PlanePoint& to, double radius,
               std::uint8_t level);
MaskPart fillPolygon(GreyPicture& mask, const std::vector<PlanePoint>& corners, std::uint8_t level);
/// The region of one level around a place, 4-connected.
MaskPart fillRegion(GreyPicture& mask, const PlanePoint& at, std::uint8_t level);

/// What the hand says of places: 0 nothing, else the level that they surely have.
inline constexpr std::uint8_t seedNone = 1;
/// A mask refined from seeds by graph cut (Rother, Kolmogorov and Blake, GrabCut, 2004): seeds hold, the rest
/// of the mask is a beginning. face: the picture that the mask is of, of its size.
GreyPicture refinedMask(const RgbPicture& face, const GreyPicture& mask, const GreyPicture& seeds);

} // namespace ibuki
