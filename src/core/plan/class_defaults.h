// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Typical values of each class of material, used where nothing is stated and then marked as defaults.
// From no product, not for acceptance decisions (docs/methods.md, "Typical values").

#include "core/domain/material.h"

#include <optional>

namespace ibuki {

struct ClassDefaults {
    double conductivityWPerMK = 0;
    double bondLineUm = 0;      ///< pressed paste or film; pads and sheets: the thickness as bought
    double contactMm2KPerW = 0; ///< both faces together
    double densityGPerMl = 0;
    std::optional<double> yieldPa;
    std::optional<double> viscosityPaS;
    std::optional<double> modulusMPa;
    double minC = 0;
    double maxC = 0;
    std::optional<double> meltsC;
    int cycles = 0; ///< of load before the material has settled
    double reapplyYears = 0;
    bool conducts = false;
    bool gallium = false;
    bool reusable = false;
};

const ClassDefaults& classDefaults(MaterialClass kind);

} // namespace ibuki
