// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/pressed_joint.h"

#include "core/shelf/class_defaults.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double scaling = 0.166;
constexpr double mostStrain = 0.4;

/// Of a class's R″, what lies in its bulk.
double bulkShare(MaterialClass kind) {
    const ClassDefaults& typical = classDefaults(kind);
    const double pressed = wayOf(kind) == GivesWay::asPad ? 1 - typicalPadStrain : 1;
    const double bulk = pressed * typical.bondLineUm / typical.conductivityWPerMK;
    return bulk / (bulk + typical.contactMm2KPerW);
}

} // namespace

GivesWay wayOf(MaterialClass kind) {
    switch (kind) {
    case MaterialClass::paste:
    case MaterialClass::phaseChange:
    case MaterialClass::liquidMetal:
    case MaterialClass::putty:
        return GivesWay::asPaste;
    case MaterialClass::gapPad:
        return GivesWay::asPad;
    case MaterialClass::sheet:
    case MaterialClass::solder:
    case MaterialClass::unknown:
        break;
    }
    return GivesWay::notAtAll;
}

double pressedMm2KPerW(MaterialClass kind, double mm2KPerW, double forceShare) {
    const double bulk = bulkShare(kind) * mm2KPerW;
    switch (wayOf(kind)) {
    case GivesWay::asPaste:
        return mm2KPerW + bulk * (std::pow(forceShare, -scaling) - 1);
    case GivesWay::asPad: {
        const double strain = std::min(mostStrain, typicalPadStrain * forceShare);
        return mm2KPerW + bulk * ((1 - strain) / (1 - typicalPadStrain) - 1);
    }
    case GivesWay::notAtAll:
        break;
    }
    return mm2KPerW;
}

std::vector<PadChoice> padChoices(const Material* pad, std::optional<double> gapMm) {
    const MaterialClass kind = pad && wayOf(pad->kind) == GivesWay::asPad ? pad->kind : MaterialClass::gapPad;
    Material typical;
    typical.kind = kind;
    const MaterialFacts facts = factsOf(pad && pad->kind == kind ? *pad : typical);
    std::vector<PadChoice> choices;
    for (double thickness : namedPadThicknessesMm) {
        const double gap = gapMm.value_or((1 - typicalPadStrain) * thickness);
        const double modulus = facts.modulusMPa ? facts.modulusMPa->value : 0.5;
        const PadState state = padState({"", gap, thickness, modulus, 100, 1});
        const double pressedUm = 1e3 * std::min(gap, thickness);
        choices.push_back({thickness, state.strain,
                           pressedUm / classDefaults(kind).conductivityWPerMK + facts.contactMm2KPerW.value,
                           state.fit});
    }
    return choices;
}

} // namespace ibuki
