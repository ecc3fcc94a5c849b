// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A face of a conduction field as a picture: the hotter, the darker, with lines of one temperature.

#include "core/physics/conduction_field.h"
#include "store/picture/png.h"

#include <array>

namespace ibuki {

/// From the coldest (0) to the hottest (1).
std::array<std::uint8_t, 3> heatColour(double share);

struct FieldPictureOptions {
    double pixelsPerMm = 24; ///< less where the longer side would pass `longest`
    int longest = 1600;
    bool contours = true;
    std::optional<double> lowestC{}, highestC{}; ///< of the colours; nothing: the face's own
};

RgbPicture fieldPicture(const FieldFace& face, const FieldPictureOptions& options = {});

} // namespace ibuki
