// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The raster of a conduction field: lines that fall on every edge of solids and sources, close together where
// the flux changes suddenly, and the levels that each solid is cut into.

#include "core/physics/heat_path.h"

#include <vector>

namespace ibuki {

struct FieldGridOptions {
    double cellMm = 0.5;    ///< the widest cell
    bool gradeEdges = true; ///< narrower cells beside edges of the flux: a quarter of cellMm there, each next
                            ///< one up to 1.5 times wider
    std::vector<int> levels{}; ///< of each solid; empty: as physics asks (docs/methods.md H.5)
};

struct FieldGrid {
    std::vector<double> x, y;    ///< lines, mm from the axis
    std::vector<int> firstLevel; ///< of each solid, and after the last one
    std::vector<double> heights; ///< of each level, mm

    int columns() const { return static_cast<int>(x.size()) - 1; }
    int rows() const { return static_cast<int>(y.size()) - 1; }
    int levels() const { return static_cast<int>(heights.size()); }
};

/// Throws InputError heat-path.cells when there would be more than 20 million cells.
FieldGrid fieldGrid(const HeatPath& path, const FieldGridOptions& options);

} // namespace ibuki
