// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/coverage_mask.h"

#include <algorithm>
#include <cmath>

namespace ibuki {

double CoverageMask::mean() const { return mean(0, 1, 0, 1); }

double CoverageMask::mean(double fromX, double toX, double fromY, double toY) const {
    const double left = std::clamp(fromX, 0.0, 1.0) * columns, right = std::clamp(toX, 0.0, 1.0) * columns;
    const double top = (1 - std::clamp(toY, 0.0, 1.0)) * rows,
                 bottom = (1 - std::clamp(fromY, 0.0, 1.0)) * rows;
    double sum = 0, area = 0;
    for (int row = static_cast<int>(top); row < rows && row < bottom; ++row) {
        const double height = std::min<double>(bottom, row + 1) - std::max<double>(top, row);
        for (int column = static_cast<int>(left); column < columns && column < right; ++column) {
            const double width = std::min<double>(right, column + 1) - std::max<double>(left, column);
            const auto at = static_cast<std::size_t>(row) * static_cast<std::size_t>(columns)
                            + static_cast<std::size_t>(column);
            sum += width * height * static_cast<double>(covered[at]);
            area += width * height;
        }
    }
    return area > 0 ? sum / area : 0;
}

} // namespace ibuki
