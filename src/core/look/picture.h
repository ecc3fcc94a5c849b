// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pictures as rasters, row by row from the top.

#include "core/physics/coverage_mask.h"

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

/// Pixels from the picture's upper left; whole numbers are the corners of pixels.
struct PicturePoint {
    double x = 0;
    double y = 0;
    bool operator==(const PicturePoint&) const = default;
};

/// The face's corners, clockwise from its upper left.
using FaceCorners = std::array<PicturePoint, 4>;

/// Width and length of a face in mm: width to the right, length up.
struct FaceSize {
    double widthMm = 0;
    double lengthMm = 0;
    bool operator==(const FaceSize&) const = default;
};

/// What a mask says of a place. A mask is a grey picture of these levels; from outside any level of 128 and
/// more counts as covered (docs/methods.md, "Looks").
inline constexpr std::uint8_t maskBare = 0, maskThin = 100, maskCovered = 255, maskFromHere = 128;

/// As the conduction field reads it.
CoverageMask coverageMaskOf(const GreyPicture& mask);

} // namespace ibuki
