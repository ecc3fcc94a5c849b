// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which part of an interface its material covers: a raster stretched over the overlap of the two faces.

#include <vector>

namespace ibuki {

struct CoverageMask {
    int columns = 0;
    int rows = 0;               ///< the first is the top edge, +y
    std::vector<float> covered; ///< 0 to 1, row by row

    double mean() const;
    /// Mean over a rectangle in shares of the face, 0 to 1, x to the right, y up.
    double mean(double fromX, double toX, double fromY, double toY) const;
};

} // namespace ibuki
