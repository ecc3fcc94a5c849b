// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/json/coverage_json.h"

#include "store/json/optional_json.h"

#include <cmath>

namespace ibuki {
namespace {

using Json = nlohmann::ordered_json;

Json voidsJson(const CoverageFigures& figures) {
    Json voids = Json::array();
    for (const BareRegion& region : figures.voids)
        voids.push_back({{"area_mm2", region.areaMm2},
                         {"x_mm", region.xMm},
                         {"y_mm", region.yMm},
                         {"touches_edge", region.touchesEdge}});
    return voids;
}

struct PhotographPart {
    Json corners = nullptr, from = nullptr, pxPerMm = nullptr, low = nullptr, high = nullptr,
         outside = nullptr;
    Json flags = Json::array();
};

Json reported(const PhotographPart& part, const Extent& face, const std::optional<CoverageFigures>& figures) {
    const auto figure = [&](auto member) { return figures ? Json((*figures).*member) : Json(nullptr); };
    return {{"face_mm", {face.widthMm, face.lengthMm}},
            {"corners_px", part.corners},
            {"corners_from", part.from},
            {"px_per_mm", part.pxPerMm},
            {"covered", figure(&CoverageFigures::covered)},
            {"covered_low", part.low},
            {"covered_high", part.high},
            {"centre", figure(&CoverageFigures::centre)},
            {"edge", figure(&CoverageFigures::edge)},
            {"corners", figure(&CoverageFigures::corners)},
            {"voids", figures ? voidsJson(*figures) : Json(nullptr)},
            {"largest_bare_circle_mm", figure(&CoverageFigures::largestBareCircleMm)},
            {"trapped_voids", figure(&CoverageFigures::trappedVoids)},
            {"outside_mm2", part.outside},
            {"flags", part.flags}};
}

} // namespace

Json toJson(const MeasuredFace& measured, const Extent& face, const std::optional<CoverageFigures>& figures) {
    PhotographPart part;
    for (const LookFlag flag : measured.flags) part.flags.push_back(codeOf(flag));
    if (!measured.corners) return reported(part, face, std::nullopt);
    part.corners = Json::array();
    for (const PlanePoint& corner : *measured.corners) part.corners.push_back({corner.x, corner.y});
    part.from = measured.found ? "found" : "given";
    part.pxPerMm = measured.pxPerMm;
    part.low = measured.covered.low;
    part.high = measured.covered.high;
    part.outside = measured.film.outsideMm2;
    return reported(part, face, figures);
}

Json maskJson(const GreyPicture& mask, const Extent& face, const CoverageFigures& figures) {
    PhotographPart part;
    part.pxPerMm = std::sqrt(mask.width / face.widthMm * mask.height / face.lengthMm);
    return reported(part, face, figures);
}

} // namespace ibuki
