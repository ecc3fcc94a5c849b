// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/pad.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace ibuki {
namespace {

PadFit fitOf(double strain) {
    if (strain <= 0) return PadFit::noContact;
    if (strain < 0.05) return PadFit::unreliable;
    if (strain > 0.4) return PadFit::tooThick;
    return strain >= 0.1 && strain <= 0.3 ? PadFit::good : PadFit::fair;
}

void need(bool sound, const char* code, Fields fields = {}) {
    if (!sound) throw InputError(code, {}, std::move(fields));
}

} // namespace

PadState padState(const PadAtSite& pad) {
    need(pad.gapMm > 0, "gap-value.gap", {{"site", pad.site}});
    need(pad.thicknessMm > 0, "gap-value.thickness", {{"site", pad.site}});
    need(pad.modulusMPa > 0, "gap-value.stiffness", {{"site", pad.site}});
    need(pad.pieceAreaMm2 > 0 && pad.pieces > 0, "gap-value.area", {{"site", pad.site}});
    PadState state;
    state.strain = std::max(0.0, 1 - pad.gapMm / pad.thicknessMm);
    state.pressureMPa = pad.modulusMPa * state.strain;
    state.forceN = state.pressureMPa * pad.pieceAreaMm2 * pad.pieces;
    state.fit = fitOf(state.strain);
    return state;
}

PlateBalance balance(const std::vector<PadAtSite>& pads, double mountForceN) {
    need(mountForceN > 0, "gap-value.mount-force");
    PlateBalance result;
    for (const PadAtSite& pad : pads) {
        result.pads.push_back(padState(pad));
        result.padForceN += result.pads.back().forceN;
    }
    result.dieForceN = mountForceN - result.padForceN;
    return result;
}

std::vector<double> fittingThicknesses(double gapMm, const std::vector<double>& thicknessesMm) {
    std::vector<double> fitting;
    for (double thickness : thicknessesMm)
        if (fitOf(1 - gapMm / thickness) == PadFit::good) fitting.push_back(thickness);
    std::sort(fitting.begin(), fitting.end());
    return fitting;
}

PlateBow plateBow(double forceN, double radiusMm, double thicknessMm, double modulusGPa, double poisson) {
    need(forceN > 0, "gap-value.force");
    need(radiusMm > 0, "gap-value.radius");
    need(thicknessMm > 0, "gap-value.plate-thickness");
    need(modulusGPa > 0, "gap-value.plate-stiffness");
    const double t = thicknessMm * 1e-3;
    const double r = radiusMm * 1e-3;
    const double rigidity = modulusGPa * 1e9 * t * t * t / (12 * (1 - poisson * poisson));
    const double clamped = 1e6 * forceN * r * r / (16 * std::numbers::pi * rigidity);
    return {clamped, clamped * (3 + poisson) / (1 + poisson)};
}

} // namespace ibuki
