// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/look_csv.h"

#include "store/table/table.h"

#include <fmt/format.h>

namespace ibuki {

std::string lookCsv(const CoverageFigures& figures) {
    std::string text = "what,value,x_mm,y_mm,touches_edge\n";
    const auto row = [&](const char* what, double value) { text += fmt::format("{},{},,,\n", what, value); };
    row("covered", figures.covered);
    row("centre", figures.centre);
    row("edge", figures.edge);
    for (const double corner : figures.corners) row("corner", corner);
    row("largest_bare_circle_mm", figures.largestBareCircleMm);
    row("trapped_voids", figures.trappedVoids);
    for (const BareRegion& region : figures.voids)
        text += fmt::format("void_mm2,{},{},{},{}\n", region.areaMm2, region.xMm, region.yMm,
                            region.touchesEdge ? 1 : 0);
    return text;
}

std::string looksCsv(const std::vector<LookRow>& rows) {
    std::string text = "mount,material,covered,upper_left,upper_right,lower_right,lower_left,delta_K\n";
    for (const LookRow& row : rows)
        text += fmt::format("{},{},{},{},{},{},{},{}\n", csvField(row.mount), csvField(row.material),
                            row.covered, row.corners[0], row.corners[1], row.corners[2], row.corners[3],
                            row.deltaK ? fmt::format("{}", *row.deltaK) : "");
    return text;
}

} // namespace ibuki
