// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/bursts.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double mostSteps = 100'000;

/// Fine enough for the shortest part of the pattern.
double stepFor(const BurstPattern& pattern) {
    const double shortest = pattern.offS > 0 ? std::min(pattern.onS, pattern.offS) : pattern.onS;
    return std::min(1.0, shortest / 10);
}

void requireSound(const BurstPattern& p) {
    const bool sound = p.onS > 0 && p.offS >= 0 && p.lowW >= 0 && p.highW > p.lowW && p.lengthS >= p.onS
                       && std::isfinite(p.highW) && p.lengthS / stepFor(p) <= mostSteps;
    if (!sound) throw InputError("bursts-pattern", {});
}

} // namespace

double capacityJPerK(CoolerMass mass) {
    switch (mass) {
    case CoolerMass::air:
        return 540; // 0.6 kg of aluminium fins
    case CoolerMass::loop:
        return 1'833; // 0.35 kg of coolant and 0.6 kg of radiator
    case CoolerMass::largeLoop:
        break;
    }
    return 5'000;
}

std::vector<LadderNode> ladderOf(const HeatPath& path, double coolerJPerK) {
    const HeatPathSteps steps = chainSteps(path);
    std::vector<LadderNode> nodes;
    for (std::size_t i = 0; i < path.solids.size(); ++i) {
        const PathSolid& solid = path.solids[i];
        LadderNode node;
        node.capacityJPerK = solid.heatJPerCm3K * solid.size.areaMm2() * solid.thicknessMm * 1e-3;
        node.toNextKPerW = steps.solids[i].rKPerW + steps.solids[i].spreadingKPerW.value_or(0);
        if (i < path.interfaces.size()) node.toNextKPerW += steps.interfaces[i].rKPerW;
        nodes.push_back(node);
    }
    nodes.push_back({coolerJPerK, path.coolerKPerW});
    return nodes;
}

BurstCurves burstCurves(const HeatPath& path, double coolerJPerK, const BurstPattern& pattern) {
    requireSound(pattern);
    const auto nodes = ladderOf(path, coolerJPerK);
    const double step = stepFor(pattern), room = path.ambientC;
    ThermalLadder bursts(nodes, step), longLoad(nodes, step);
    bursts.settle(pattern.lowW, room);
    longLoad.settle(pattern.lowW, room);
    BurstCurves curves;
    curves.longEndC = room + pattern.highW * longLoad.totalKPerW();
    const double period = pattern.onS + pattern.offS;
    const auto count = static_cast<std::size_t>(std::lround(pattern.lengthS / step));
    double peak = bursts.chipC();
    for (std::size_t i = 0; i <= count; ++i) {
        const double time = static_cast<double>(i) * step;
        curves.timeS.push_back(time);
        curves.burstsC.push_back(bursts.chipC());
        curves.longC.push_back(longLoad.chipC());
        if (!curves.withinKelvinS && longLoad.chipC() >= curves.longEndC - 1) curves.withinKelvinS = time;
        peak = std::max(peak, bursts.chipC());
        // Half a step in, so that a border does not fall on either side by rounding.
        const double inPeriod = std::fmod(time + step / 2, period);
        const bool isOn = inPeriod < pattern.onS;
        const bool endsNow = isOn && inPeriod + step >= pattern.onS;
        bursts.step(isOn ? pattern.highW : pattern.lowW, room);
        longLoad.step(pattern.highW, room);
        if (!endsNow) continue;
        peak = std::max(peak, bursts.chipC());
        if (curves.firstPeakC == 0) curves.firstPeakC = peak;
        curves.lastPeakC = peak;
        peak = room;
    }
    return curves;
}

} // namespace ibuki
