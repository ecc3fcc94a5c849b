// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/bond_line.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace ibuki {

using std::numbers::pi;

double scalingBondLineUm(double yieldPa, double pressurePa) {
    return 131.0 * std::pow(yieldPa / pressurePa, 0.166);
}

double yieldStopUm(double yieldPa, double forceN, double volumeMm3) {
    const double volume = volumeMm3 * 1e-9;
    return 1e6 * std::pow(2 * pi * yieldPa / (3 * forceN) * std::pow(volume / pi, 1.5), 0.4);
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
