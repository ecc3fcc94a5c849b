// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How much of a use a shorter and harder test stands for, where one mechanism with known constants does the
// harm (docs/methods.md, "Drift", G.6).

#include "core/quantity/temperature.h"

#include <optional>

namespace ibuki {

/// exp[(Ea/k)(1/T_use − 1/T_test)], Ea in eV (Arrhenius; JEDEC JEP122).
double arrheniusFactor(double activationEv, Celsius use, Celsius test);

/// (ΔT_test/ΔT_use)^q (Coffin 1954; Manson 1954). Swings > 0.
double coffinMansonFactor(double exponent, Kelvin use, Kelvin test);

/// Cycles of one kind: swing, how many a day, hottest temperature.
struct Cycling {
    Kelvin swing{40};
    double perDay = 2;
    Celsius hottest{75};
};

/// Norris & Landzberg 1969; the defaults are of tin–lead solder.
struct NorrisLandzberg {
    double swingExponent = 1.9;
    double frequencyExponent = 1.0 / 3;
    double perKelvin = 1'414; ///< Ea/k, K
};
/// (ΔT_t/ΔT_u)^n (f_u/f_t)^m exp[E (1/T_u − 1/T_t)]: how many cycles of use one of the test stands for.
double norrisLandzbergFactor(const NorrisLandzberg& constants, const Cycling& use, const Cycling& test);

/// A use and a test of the same joint, by the mechanism that does the harm.
enum class WearBy { heat, swings, solderSwings };

struct UseAndTest {
    WearBy by = WearBy::heat;
    double activationEv = 0.7; ///< heat
    double exponent = 2;       ///< swings
    NorrisLandzberg solder;
    Cycling use;
    double useHoursPerDay = 8; ///< hot, heat only
    Cycling test{Kelvin{100}, 48, Celsius{125}};
    double testHoursPerDay = 24;
};

struct Accelerated {
    double factor = 1;     ///< an hour (a cycle) of the test stands for so many of the use
    double testDays = 0;   ///< for the years of use asked
    double testCycles = 0; ///< of them; 0 for heat
};
/// Nothing where the test would be milder than the use, or a figure is not above 0.
std::optional<Accelerated> testFor(const UseAndTest& asked, double years);

} // namespace ibuki
