// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A film of paste as it may lie on a face after the cooler came off: what the pattern and the dose spread to
// (core/physics/spread), with a ragged edge, smears drawn out by the lifting, and bubbles. Made up, for
// photographs to practise and to test on; the same seed gives the same film.

#include "core/look/picture.h"
#include "core/physics/spread.h"

#include <cstdint>

namespace ibuki {

/// Thickness in bond lines over a face and a margin around it; rows from the top.
struct FilmThickness {
    Extent face;
    double cellMm = 0.1;
    int columns = 0; ///< of the face
    int rows = 0;
    int margin = 0; ///< cells around it
    std::vector<float> bondLines;

    int wide() const { return columns + 2 * margin; }
    int high() const { return rows + 2 * margin; }
};

struct FilmScene {
    SpreadInput spread;   ///< face, strokes, volume, bond line
    PlanePoint shift;     ///< of the pattern from the face's middle
    double ragged = 0.08; ///< of the longer side: how far the edge wanders
    double smear = 0;     ///< share of what is bare that a thin film lies on
    int bubbles = 0;
    double tilt = 0;       ///< 0 to 1: how much the film gives way to one corner
    double tiltAngle = 0;  ///< towards which, radians
    double overEdge = 0.2; ///< 0 to 1: how much of it comes over the face's edges
    double cellMm = 0;     ///< 0: a 240th of the longer side
    std::uint64_t seed = 1;
};

FilmThickness filmThickness(const FilmScene& scene);

/// Covered is a film thicker than half the bond line.
GreyPicture maskOf(const FilmThickness& film);

} // namespace ibuki
