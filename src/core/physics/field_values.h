// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reading a face of a conduction field between its cells: values at any place, and lines of one temperature.

#include "core/physics/conduction_field.h"
#include "core/quantity/plane.h"

#include <vector>

namespace ibuki {

/// Between the centres of cells by straight lines; beyond the outermost centres their values, °C.
double celsiusAt(const FieldFace& face, double xMm, double yMm);

/// Line of one temperature.
struct Contour {
    double celsius = 0;
    std::vector<PlanePoint> points; ///< mm, one after the other
    bool isClosed = false;
};

/// Lines at whole multiples of a round step (1, 2 or 5 times a power of ten) that gives about `wanted` of
/// them, by marching squares between the cells' centres.
std::vector<Contour> contoursOf(const FieldFace& face, int wanted = 8);

/// That step, K, for values from lo to hi.
double roundStep(double lo, double hi, int wanted);

} // namespace ibuki
