// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which quadrilateral is the face: colours differ across a face's sides; a face that stands on a board of its
// own lies inside another quadrilateral, and what lies between them has colours that are not found inside.

#include "core/look/edge_quads.h"

namespace ibuki {

/// Index of the face among quads, of which there is at least one; they are put into the order of what they
/// are worth by their colours too.
std::size_t faceAmong(const cv::Mat& lab, std::vector<EdgeQuad>& quads);

/// Whether two quadrilaterals mean the same face: not the board below it, nor a part of it.
bool isAlike(const EdgeQuad& one, const EdgeQuad& chosen);

} // namespace ibuki
