// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/section_layout.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr double leastJoint = 3;    ///< pixels
constexpr double coolerShare = 0.3; ///< of the height, for what stands on the plate

} // namespace

SectionLayout layoutSection(const HeatPath& path, const QRectF& area) {
    SectionLayout layout;
    double widest = 0, high = 0;
    for (const PathSolid& solid : path.solids) {
        widest = std::max(widest, solid.size.widthMm);
        high += solid.thicknessMm;
    }
    const double joints = leastJoint * static_cast<double>(path.interfaces.size());
    const double room = (1 - coolerShare) * area.height() - joints;
    layout.pixelsPerMm = std::min(area.width() / widest, room / high);
    const double tall = high * layout.pixelsPerMm + joints + coolerShare * area.height();
    double y = area.bottom() - std::max(0.0, (area.height() - tall) / 2);
    const auto lay = [&](double widthMm, double height) {
        const double width = widthMm * layout.pixelsPerMm;
        y -= height;
        return QRectF(area.center().x() - width / 2, y, width, height);
    };
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        layout.solids.push_back(
            lay(path.solids[i].size.widthMm, path.solids[i].thicknessMm * layout.pixelsPerMm));
        if (i == path.interfaces.size()) break;
        const double width = std::min(path.solids[i].size.widthMm, path.solids[i + 1].size.widthMm);
        layout.interfaces.push_back(lay(width, leastJoint));
    }
    const double wide = std::min(area.width(), widest * layout.pixelsPerMm * 1.1);
    const double height = coolerShare * area.height();
    layout.cooler = QRectF(area.center().x() - wide / 2, y - height, wide, height);
    return layout;
}

} // namespace ibuki
