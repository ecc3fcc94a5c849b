// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where the face lies in a photograph: quadrilaterals of straight edges, judged by how much of their sides is
// an edge, whether the edges end at the corners, and whether a flat face of the known size can look so. The
// model: one face, wholly in the picture, its sides straight; paste over an edge hides no more than half of a
// side.

#include "core/look/picture.h"

#include <optional>

namespace ibuki {

struct FoundCorners {
    FaceCorners corners;
    double support = 0; ///< 0 to 1: how much of the sides is seen as an edge
};

struct FindCornersOptions {
    std::optional<FaceCorners> guess; ///< the last picture of this bench, in shares of width and height
    double leastSupport = 0.45;
    bool sizeAssumed = false; ///< the sides' ratio is a guess: it tells little
};

/// Nothing when no quadrilateral is seen well enough. Throws InputError (look-face).
std::optional<FoundCorners> findCorners(const RgbPicture& photograph, const Extent& face,
                                        const FindCornersOptions& options = {});

} // namespace ibuki
