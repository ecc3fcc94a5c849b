// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Typical values of each class of material, used where a material states nothing and then marked as defaults.
// From no product, not for acceptance decisions (docs/methods.md, "Typical values").

#include "core/domain/material.h"

#include <string_view>

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

/// A value with its origin, so that every screen can mark what the user never said.
template <class T> struct ValueOrDefault {
    T value{};
    bool isDefault = false;
};

/// A material with every gap filled from its class. `bondLineUm` is the thickness for pads and sheets.
struct MaterialFacts {
    ValueOrDefault<double> densityGPerMl;
    ValueOrDefault<double> bondLineUm;
    ValueOrDefault<double> contactMm2KPerW;
    ValueOrDefault<double> conductivityWPerMK;
    std::optional<ValueOrDefault<double>> yieldPa;
    std::optional<ValueOrDefault<double>> viscosityPaS;
    std::optional<ValueOrDefault<double>> modulusMPa;
    std::optional<ValueOrDefault<double>> meltsC;
    ValueOrDefault<double> minC;
    ValueOrDefault<double> maxC;
    ValueOrDefault<int> cycles;
    ValueOrDefault<double> reapplyYears;
    ValueOrDefault<bool> conducts;
    ValueOrDefault<bool> gallium;
    ValueOrDefault<bool> reusable;
};

MaterialFacts factsOf(const Material& material);

/// Whether it is cut from a sheet (pads, sheets, film) rather than dispensed.
bool isCut(MaterialClass kind);

} // namespace ibuki
