// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Quadrilaterals of straight edges: which pairs of lines close one, how much of its sides is an edge, how odd
// a view of a flat face of the known size it would be.

#include "core/look/edge_field.h"

namespace ibuki {

struct EdgeQuad {
    FaceCorners corners;
    double support = 0; ///< 0 to 1: how much of the sides is an edge
    double worth = 0;   ///< with how large and how odd it is
};

/// How much the size that the face is said to have tells of where it lies.
struct ViewTrust {
    double oddView = 0.004; ///< strangeness that halves what a quadrilateral is worth
    double oddCost = 5;     ///< of a relative error of 1, in whole sides that are an edge
};
inline constexpr ViewTrust assumedSize{0.1, 0.5};

/// What is taken for an edge.
double leastStrength(const EdgeField& field);
double areaOf(const FaceCorners& corners); ///< px²; above 0 clockwise

/// Those worth most first, none like one before it. Throws nothing for faces that have a size.
std::vector<EdgeQuad> edgeQuads(const EdgeField& field, const Extent& face,
                                const std::vector<EdgeLine>& lines, const ViewTrust& trust);

} // namespace ibuki
