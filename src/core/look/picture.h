// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pictures as rasters, row by row from the top.

#include "core/physics/coverage_mask.h"
#include "core/quantity/plane.h"

#include <array>
#include <cstdint>
#include <vector>

namespace ibuki {

struct GreyPicture {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> grey;
    bool operator==(const GreyPicture&) const = default;
};

struct RgbPicture {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> rgb; ///< three bytes a pixel
};

/// The face's corners in pixels from the picture's upper left, clockwise from the face's upper left; whole
/// numbers are the corners of pixels. Of an `Extent` the width lies to the right, the length up.
using FaceCorners = std::array<PlanePoint, 4>;

/// What a mask says of a place. A mask is a grey picture of these levels; from outside any level of 128 and
/// more counts as covered (docs/methods.md, "Looks").
inline constexpr std::uint8_t maskBare = 0, maskThin = 100, maskCovered = 255, maskFromHere = 128;

/// As the conduction field reads it.
CoverageMask coverageMaskOf(const GreyPicture& mask);

} // namespace ibuki
