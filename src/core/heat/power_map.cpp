// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/power_map.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr double coreMm = 2;

HeatSource core(double x, double y, const Extent& size, double powerW) {
    HeatSource source;
    source.xMm = x;
    source.yMm = y;
    source.size = size;
    source.powerW = powerW;
    return source;
}

} // namespace

std::vector<HeatSource> powerMap(PowerPlaces places, const Extent& chip, double powerW, double share) {
    const double watt = powerW * share;
    const Extent one{std::min(coreMm, chip.widthMm / 3), std::min(coreMm, chip.lengthMm / 5)};
    switch (places) {
    case PowerPlaces::even:
        return {};
    case PowerPlaces::middleCore:
        return {core(0, 0, one, watt)};
    case PowerPlaces::cornerCore: // a core's width from both edges
        return {core(chip.widthMm / 2 - one.widthMm, chip.lengthMm / 2 - one.lengthMm, one, watt)};
    case PowerPlaces::eightCores:
        break;
    }
    std::vector<HeatSource> cores;
    for (int row = 0; row < 4; ++row)
        for (double side : {-0.25, 0.25})
            cores.push_back(core(side * chip.widthMm, (row - 1.5) * chip.lengthMm / 4, one, watt / 8));
    return cores;
}

} // namespace ibuki
