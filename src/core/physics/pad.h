// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Pads that share one plate's screws: how far each is pressed, what force it takes away from the die, and how
// a backplate bends under it (docs/methods.md, "Pads and gaps").

#include <string>
#include <vector>

namespace ibuki {

/// A kind of pad at a kind of site.
struct PadAtSite {
    std::string site;
    double gapMm = 0;       ///< between the faces while the die touches
    double thicknessMm = 0; ///< of the pad as bought
    double modulusMPa = 0;  ///< strain at pressure: P ≈ E·ε up to about 0.3
    double pieceAreaMm2 = 0;
    int pieces = 1;
};

enum class PadFit {
    noContact,  ///< not as thick as the gap
    unreliable, ///< pressed by less than 5 %
    good,       ///< 10 to 30 %
    fair,       ///< between
    tooThick    ///< over 40 %: permanent set, load on the board
};

struct PadState {
    double strain = 0; ///< 1 − gap/thickness, not below 0
    double pressureMPa = 0;
    double forceN = 0; ///< of all its pieces
    PadFit fit = PadFit::noContact;
};

/// gap, thickness, modulus and area > 0; throws InputError (gap-value) otherwise.
PadState padState(const PadAtSite& pad);

struct PlateBalance {
    std::vector<PadState> pads; ///< in the order given
    double padForceN = 0;
    double dieForceN = 0; ///< mount force less the pads'; not above 0: the plate stands on the pads
    bool dieTouches() const { return dieForceN > 0; }
};

PlateBalance balance(const std::vector<PadAtSite>& pads, double mountForceN);

/// Which of the thicknesses fit a gap with a strain of 10 to 30 %, thinnest first.
std::vector<double> fittingThicknesses(double gapMm, const std::vector<double>& thicknessesMm);

struct PlateBow {
    double clampedUm = 0;   ///< edge held: F·R²/(16πD)
    double supportedUm = 0; ///< edge free to turn: (3+ν)/(1+ν) times that
};

/// A round plate under a load in its middle (Timoshenko & Woinowsky-Krieger 1959), D = E·t³/(12(1−ν²)).
/// modulusGPa 200 and poisson 0.29 for steel. Throws InputError (gap-value) for sizes that cannot be.
PlateBow plateBow(double forceN, double radiusMm, double thicknessMm, double modulusGPa, double poisson);

} // namespace ibuki
