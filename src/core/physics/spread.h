// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where a pattern of paste goes when the plate comes down: the drawn shape grows by one distance all round
// until its area times the bond line is the volume (constant-offset model, docs/methods.md, "Dose and
// spread"). It ignores yield and uneven pressure: good for comparing patterns, no promise of coverage.

#include "core/physics/coverage_mask.h"
#include "core/quantity/plane.h"

#include <string>
#include <vector>

namespace ibuki {

enum class Pattern { dot, line, cross, fiveDots, film };

/// A stroke of the syringe; a dot begins and ends in the same point.
struct Stroke {
    PlanePoint from;
    PlanePoint to;
};

/// The middle lines of a pattern. reachMm: half a line's length along the longer side, half a cross's tip to
/// tip along the face's diagonal, or the distance of the four outer dots from the middle along each side; dot
/// and film have none.
std::vector<Stroke> patternStrokes(Pattern pattern, double widthMm, double lengthMm, double reachMm);

/// From a point of the face to the nearest middle line, mm; there is at least one.
double strokeDistanceMm(const PlanePoint& from, const std::vector<Stroke>& strokes);

/// What hands usually draw on such a face; a rule of thumb.
double typicalReachMm(Pattern pattern, double widthMm, double lengthMm);

struct SpreadInput {
    double widthMm = 0; ///< of the face
    double lengthMm = 0;
    std::vector<Stroke> strokes; ///< empty: a film, spread evenly beforehand
    double volumeMm3 = 0;
    double bondLineMm = 0;
    double cellMm = 0.1;
};

struct Spread {
    double offsetMm = 0; ///< how far the middle lines grew
    double coverage = 0; ///< share of the face that is wetted
    double outside = 0;  ///< share of the volume that goes over the edge
    int trappedPockets = 0;
    double trappedMm2 = 0; ///< dry area that the paste encloses
    int columns = 0;       ///< cells across the face's width
    int rows = 0;
    double cellWidthMm = 0; ///< the face's size divided evenly, at most cellMm
    double cellLengthMm = 0;
    std::vector<unsigned char> wet; ///< columns × rows, row by row from −length/2: 1 wetted
};

/// Throws InputError (dose-face, dose-volume) for a face or a volume that cannot be, (dose-cells) for a grid
/// too fine for the memory.
Spread spread(const SpreadInput& input);

/// What it covers, as the conduction field reads it.
CoverageMask maskOf(const Spread& spread);

/// The smallest volume with which the pattern reaches every cell of the face, mm³.
double fillingVolumeMm3(const SpreadInput& input);

} // namespace ibuki
