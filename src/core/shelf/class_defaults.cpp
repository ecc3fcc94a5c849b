// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/class_defaults.h"

#include <array>
#include <type_traits>

namespace ibuki {
namespace {

// conductivity, bond line or thickness, contact, density, yield, viscosity, modulus, from, to, melts, cycles,
// years to the next application, conducts, gallium, reusable
// Each with its range and source in docs/methods.md, "Defaults by class".
constexpr std::array<ClassDefaults, 8> table{{
    /* paste        */ {4, 35, 2.5, 2.6, 150, 100, {}, -40, 140, {}, 2, 3, false, false, false},
    /* putty        */ {5, 500, 8, 3.0, 2000, 1000, {}, -40, 150, {}, 1, 5, false, false, false},
    /* gap pad      */ {5, 1500, 15, 2.8, {}, {}, 0.5, -40, 160, {}, 1, 8, false, false, false},
    /* sheet        */ {8, 150, 10, 1.3, {}, {}, {}, -40, 250, {}, 0, 10, true, false, true},
    /* phase change */ {4, 25, 2, 2.4, {}, {}, {}, -40, 125, 52, 3, 5, false, false, false},
    /* liquid metal */ {20, 20, 1, 6.4, {}, {}, {}, 12, 140, {}, 0, 2, true, true, false},
    /* solder       */ {81.8, 150, 1, 7.3, {}, {}, {}, -40, 140, {}, 0, 10, true, false, false},
    /* unknown      */ {4, 35, 2.5, 2.6, 150, 100, {}, -40, 125, {}, 2, 3, false, false, false},
}};

template <class Stated> ValueOrDefault<double> known(const std::optional<Stated>& stated, double typical) {
    if (!stated) return {typical, true};
    if constexpr (std::is_same_v<Stated, double>)
        return {*stated, false};
    else
        return {stated->value, false};
}

template <class Stated>
std::optional<ValueOrDefault<double>> maybe(const std::optional<Stated>& stated,
                                            std::optional<double> typical) {
    if (stated || typical) return known(stated, typical.value_or(0));
    return std::nullopt;
}

ValueOrDefault<bool> known(YesNo stated, bool typical) {
    if (stated == YesNo::notStated) return {typical, true};
    return {stated == YesNo::yes, false};
}

} // namespace

const ClassDefaults& classDefaults(MaterialClass kind) { return table.at(static_cast<std::size_t>(kind)); }

bool isCut(MaterialClass kind) {
    return kind == MaterialClass::gapPad || kind == MaterialClass::sheet
           || kind == MaterialClass::phaseChange;
}

MaterialFacts factsOf(const Material& material) {
    const ClassDefaults& typical = classDefaults(material.kind);
    MaterialFacts facts;
    facts.densityGPerMl = known(material.densityGPerMl, typical.densityGPerMl);
    facts.bondLineUm = known(material.bondLine, typical.bondLineUm);
    if (!material.bondLine && material.thickness)
        facts.bondLineUm = {1000 * material.thickness->value, false};
    facts.contactMm2KPerW = {typical.contactMm2KPerW, true};
    facts.conductivityWPerMK = known(material.claimedConductivity, typical.conductivityWPerMK);
    facts.yieldPa = maybe(material.yieldPa, typical.yieldPa);
    facts.viscosityPaS = maybe(material.viscosityPaS, typical.viscosityPaS);
    facts.modulusMPa = maybe(material.modulusMPa, typical.modulusMPa);
    facts.meltsC = maybe(material.melts, typical.meltsC);
    facts.minC = known(material.coldest, typical.minC);
    facts.maxC = known(material.hottest, typical.maxC);
    facts.cycles = material.conditioningCycles ? ValueOrDefault<int>{*material.conditioningCycles, false}
                                               : ValueOrDefault<int>{typical.cycles, true};
    facts.reapplyYears = known(material.reapplyYears, typical.reapplyYears);
    facts.conducts = known(material.conductsElectricity, typical.conducts);
    facts.gallium = known(material.containsGallium, typical.gallium);
    facts.reusable = known(material.reusable, typical.reusable);
    return facts;
}

} // namespace ibuki
