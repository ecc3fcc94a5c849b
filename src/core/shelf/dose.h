// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From face, bond line and density to how much paste: volume, mass, stroke of the syringe, size of a dot or a
// line, uses of a tube. V = A·h·(1+s), m = ρ·V, stroke = V/(π·d²/4) (docs/methods.md, "Dose and spread").

#include "core/physics/spread.h"

namespace ibuki {

struct DoseInput {
    double widthMm = 0;
    double lengthMm = 0;
    double bondLineUm = 0;
    double densityGPerMl = 0;
    double allowance = 0.5; ///< squeezed out and left on the spreader; 0.3 to 0.6 by hand, a rule of thumb
    double boreMm = 8.66;   ///< of the syringe's barrel
    Pattern pattern = Pattern::dot;
    double reachMm = 0; ///< of the pattern; 0: as hands usually draw it
};

struct Dose {
    double volumeMm3 = 0;
    double massG = 0;
    double strokeMm = 0;
    double dotDiameterMm = 0; ///< of each dot, as a half ball; 0 for lines and films
    double beadWidthMm = 0;   ///< of a line, as a half round bead; 0 for dots and films
    double filmUm = 0;        ///< of a spread film before pressing; 0 for others
    double ratio = 0;         ///< volume over face × bond line
};

/// Throws InputError (dose-face, dose-density, dose-bore, dose-allowance) for values that cannot be.
Dose dose(const DoseInput& input);

/// The same for a volume that was chosen, whatever the allowance.
Dose doseOfVolume(const DoseInput& input, double volumeMm3);

SpreadInput spreadInput(const DoseInput& input, double volumeMm3, double cellMm = 0.1);

/// ⌊m_tube·(1−w)/m⌋; residue w is what stays in the tube.
int usesOf(double tubeG, double residue, double massG);

/// Hand-feel presets where a label gives no figures; typical, not measured.
struct PastePreset {
    const char* name;
    double yieldPa;
    double viscosityPaS;
    double allowance;
};
inline constexpr PastePreset thinPaste{"thin paste", 50, 50, 0.3};
inline constexpr PastePreset thickPaste{"thick paste", 400, 300, 0.6};

} // namespace ibuki
