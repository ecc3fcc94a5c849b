// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/class_defaults.h"

#include <array>

namespace ibuki {
namespace {

// conductivity, bond line or thickness, contact, density, yield, viscosity, modulus, from, to, melts, cycles,
// years to the next application, conducts, gallium, reusable
constexpr std::array<ClassDefaults, 8> table{{
    /* paste        */ {4, 35, 2.5, 2.6, 150, 100, {}, -40, 140, {}, 2, 3, false, false, false},
    /* putty        */ {5, 500, 8, 3.0, 2000, 1000, {}, -40, 150, {}, 1, 5, false, false, false},
    /* gap pad      */ {5, 1500, 15, 2.8, {}, {}, 0.5, -40, 160, {}, 1, 8, false, false, false},
    /* sheet        */ {8, 150, 10, 1.3, {}, {}, {}, -40, 250, {}, 0, 10, true, false, true},
    /* phase change */ {4, 25, 2, 2.4, {}, {}, {}, -40, 125, 52, 3, 5, false, false, false},
    /* liquid metal */ {20, 20, 1, 6.4, {}, {}, {}, 12, 140, {}, 0, 2, true, true, false},
    /* solder       */ {81.8, 300, 1, 7.3, {}, {}, {}, -40, 140, {}, 0, 10, true, false, false},
    /* unknown      */ {4, 35, 2.5, 2.6, 150, 100, {}, -40, 125, {}, 2, 3, false, false, false},
}};

} // namespace

const ClassDefaults& classDefaults(MaterialClass kind) { return table.at(static_cast<std::size_t>(kind)); }

} // namespace ibuki
