// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/bond_line.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace ibuki {

using std::numbers::pi;

double screwForceN(double torqueNm, double diameterMm, double nutFactor) {
    return torqueNm / (nutFactor * diameterMm * 1e-3);
}

double springForceN(double stiffnessNPerMm, double compressionMm) { return stiffnessNPerMm * compressionMm; }

double scalingBondLineUm(double yieldPa, double pressurePa) {
    return 131.0 * std::pow(yieldPa / pressurePa, 0.166);
}

double yieldStopUm(double yieldPa, double forceN, double volumeMm3) {
    const double volume = volumeMm3 * 1e-9;
    return 1e6 * std::pow(2 * pi * yieldPa / (3 * forceN) * std::pow(volume / pi, 1.5), 0.4);
}

double squeezedThicknessMm(double startMm, double forceN, double viscosityPaS, double volumeMm3,
                           double seconds) {
    const double volume = volumeMm3 * 1e-9;
    const double rate = 8 * pi * forceN / (3 * viscosityPaS * volume * volume);
    return 1e3 * std::pow(std::pow(startMm * 1e-3, -4) + rate * seconds, -0.25);
}

double squeezeTimeS(double startMm, double endMm, double forceN, double viscosityPaS, double volumeMm3) {
    const double volume = volumeMm3 * 1e-9;
    const double rate = 8 * pi * forceN / (3 * viscosityPaS * volume * volume);
    return std::max(0.0, (std::pow(endMm * 1e-3, -4) - std::pow(startMm * 1e-3, -4)) / rate);
}

BondLine restingBondLine(const BondLineInput& input) {
    BondLine line{scalingBondLineUm(input.yieldPa, input.pressurePa), BondLineLimit::scaling};
    if (input.largestParticleUm && *input.largestParticleUm > line.um)
        line = {*input.largestParticleUm, BondLineLimit::particle};
    if (input.forceN <= 0 || input.volumeMm3 <= 0) return line;
    const double stop = yieldStopUm(input.yieldPa, input.forceN, input.volumeMm3);
    const double radiusMm = std::sqrt(input.volumeMm3 / (pi * stop * 1e-3));
    const bool inside = 2 * radiusMm <= std::min(input.faceWidthMm, input.faceLengthMm);
    if (inside && stop > line.um) line = {stop, BondLineLimit::yieldStop};
    return line;
}

} // namespace ibuki
