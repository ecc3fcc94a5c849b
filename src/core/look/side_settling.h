// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where a face's sides lie exactly: moved until most of them is an edge and a flat face of the known size can
// look so (a side that paste hides is laid by the other three), then each that is seen laid along its own
// edge.

#include "core/look/edge_quads.h"

namespace ibuki {

struct SettledSides {
    FaceCorners corners;
    double worth = 0; ///< sides that are an edge, 0 to 4, less the oddness of the view
};
SettledSides settledSides(const EdgeField& field, const Extent& face, const FaceCorners& corners,
                          const ViewTrust& trust);

/// Sides that are seen laid exactly along their edge, looked for within reach px; the others as they were.
FaceCorners laidSides(const EdgeField& field, const FaceCorners& corners, double reach);

/// How much of the sides is an edge, 0 to 1.
double seenShare(const EdgeField& field, const FaceCorners& corners);

} // namespace ibuki
