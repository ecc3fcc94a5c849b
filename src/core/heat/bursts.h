// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Short bursts or one long load: the path as a ladder of heat capacities, its cooler with the mass it has
// (docs/methods.md H.12; Incropera & DeWitt, ch. 5).

#include "core/physics/heat_path.h"
#include "core/physics/thermal_ladder.h"

namespace ibuki {

/// What a cooler stores; a loop's coolant is most of it.
enum class CoolerMass { air, loop, largeLoop };
double capacityJPerK(CoolerMass mass);

/// A node a solid and one for the cooler; resistances are those of the chain, so that both end at the same
/// temperature. Times well above a layer's own diffusion time only.
std::vector<LadderNode> ladderOf(const HeatPath& path, double coolerJPerK);

struct BurstPattern {
    double onS = 30;
    double offS = 60;
    double highW = 150;
    double lowW = 20;
    double lengthS = 1'800;
};

struct BurstCurves {
    std::vector<double> timeS;
    std::vector<double> burstsC; ///< mean of the chip
    std::vector<double> longC;   ///< the high power all the time, from the same begin
    double firstPeakC = 0;
    double lastPeakC = 0; ///< of the last whole burst
    double longEndC = 0;  ///< where the long load ends up at last
    std::optional<double>
        withinKelvinS; ///< when the long load is a kelvin below that; nothing: not in the time
};

/// Both begin at rest under the low power. Throws InputError (bursts-pattern) for times or powers that cannot
/// be: on and length above 0, high above low, low and off at least 0, no more than 100,000 steps.
BurstCurves burstCurves(const HeatPath& path, double coolerJPerK, const BurstPattern& pattern);

} // namespace ibuki
