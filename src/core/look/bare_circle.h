// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/look/picture.h"

namespace ibuki {

/// Diameter in mm of the largest circle that lies within the face and over bare pixels only; 0 when nothing
/// is bare. Pixels are rectangles: the circle may touch their sides and corners.
double largestBareCircleMm(const GreyPicture& mask, const Extent& face);

} // namespace ibuki
