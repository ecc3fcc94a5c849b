// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How thin a paste is pressed, by what, and how long it takes (docs/methods.md, "Bond line").

#include <optional>

namespace ibuki {

/// Bond line of a particle-filled paste, µm: 131 µm · (τ_y/P)^0.166 (Prasher et al., J. Heat Transfer 125,
/// 2003); about 0.1 to 1 MPa on small parts. yieldPa, pressurePa > 0.
double scalingBondLineUm(double yieldPa, double pressurePa);

/// Where a drop of volume V comes to rest under force F, µm (Covey & Stanmore 1981, Bingham at rest). Not
/// valid once the drop has reached the part's edge.
double yieldStopUm(double yieldPa, double forceN, double volumeMm3);

struct BondLineInput {
    double yieldPa = 0;
    double pressurePa = 0;
    double forceN = 0;
    double volumeMm3 = 0;
    double faceWidthMm = 0;
    double faceLengthMm = 0;
    std::optional<double> largestParticleUm; ///< the largest filler particle, not the mean
};

enum class BondLineLimit { scaling, particle, yieldStop };

struct BondLine {
    double um = 0;
    BondLineLimit limit = BondLineLimit::scaling; ///< which of the three stops it
};

/// The largest of scaling law, largest particle and, while the drop is inside the face, yield stop.
BondLine restingBondLine(const BondLineInput& input);

} // namespace ibuki
