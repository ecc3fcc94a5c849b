// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/bench_parts.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double airExponent = 0.7;
constexpr double noticed = 0.002; ///< relative change of a resistance that the ladder takes
constexpr double hottestC = 150;  ///< leakage does not run away further

} // namespace

double leakageW(const std::optional<Leakage>& leakage, double chipC) {
    if (!leakage) return 0;
    return leakage->atReferenceW
           * std::exp(leakage->perK * (std::min(chipC, hottestC) - leakage->referenceC));
}

MovingParts::MovingParts(const SimulatedBench& bench) : bench_(bench) {
    if (bench.fan) duty_ = bench.fan->leastDuty;
    if (bench.wetting) wetted_ = bench.wetting->wetted;
    if (bench.pumpOut) cycles_ = bench.pumpOut->before;
    takenInterface_ = interfaceKPerW();
    takenDuty_ = duty_;
}

double MovingParts::interfaceKPerW() const {
    double kPerW = bench_.interfaceKPerW;
    if (bench_.pumpOut)
        kPerW *= 1 + bench_.pumpOut->amplitude * (1 - std::exp(-cycles_ / bench_.pumpOut->cycles));
    if (bench_.dryOut)
        kPerW += bench_.dryOut->kPerWPerRootH * std::sqrt(bench_.dryOut->before); // a run is short
    if (bench_.wetting) kPerW += (1 - wetted_) * bench_.wetting->unwettedKPerW;
    return kPerW;
}

bool MovingParts::step(double chipC, double jointC, bool loaded, double seconds) {
    if (bench_.fan) {
        const SimulatedFan& fan = *bench_.fan;
        const double share = (chipC - fan.fromC) / (fan.toC - fan.fromC);
        const double wanted = std::clamp(fan.leastDuty + (1 - fan.leastDuty) * share, fan.leastDuty, 1.0);
        duty_ += std::clamp(wanted - duty_, -fan.slewPerS * seconds, fan.slewPerS * seconds);
    }
    if (bench_.wetting && jointC > bench_.wetting->meltC)
        wetted_ += (1 - wetted_) * (1 - std::exp(-seconds / bench_.wetting->tauS));
    if (loaded && !loaded_) cycles_ += 1;
    loaded_ = loaded;
    const double now = interfaceKPerW();
    if (std::abs(now - takenInterface_) <= noticed * takenInterface_
        && std::abs(duty_ - takenDuty_) <= noticed)
        return false;
    takenInterface_ = now;
    takenDuty_ = duty_;
    return true;
}

std::vector<LadderNode> MovingParts::layers() const {
    auto layers = bench_.layers;
    layers[bench_.interfaceAfter].toNextKPerW += takenInterface_;
    if (bench_.fan)
        layers.back().toNextKPerW =
            bench_.fan->fixedKPerW + bench_.fan->airKPerW * std::pow(takenDuty_, -airExponent);
    return layers;
}

} // namespace ibuki
