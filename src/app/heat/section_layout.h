// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A heat path as a section through its middle, to scale: chip at the bottom, cooler at the top, so that it
// looks as it stands on the bench.

#include "core/physics/heat_path.h"

#include <QRectF>
#include <vector>

namespace ibuki {

struct SectionLayout {
    std::vector<QRectF> solids;
    std::vector<QRectF> interfaces; ///< at least two pixels high, so that a bond line can be seen
    QRectF cooler;                  ///< not to scale
    double pixelsPerMm = 0;
};

SectionLayout layoutSection(const HeatPath& path, const QRectF& area);

} // namespace ibuki
