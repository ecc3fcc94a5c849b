// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Powers, resistances and lengths that cannot be mixed up, with the few products that mean something.
// Bulk data (traces, statistics) are plain doubles whose names carry the unit.

#include "core/quantity/temperature.h"

namespace ibuki {

template <class Tag> struct Quantity {
    double value = 0;

    friend constexpr Quantity operator+(Quantity a, Quantity b) { return {a.value + b.value}; }
    friend constexpr Quantity operator-(Quantity a, Quantity b) { return {a.value - b.value}; }
    friend constexpr Quantity operator*(double factor, Quantity a) { return {factor * a.value}; }
    friend constexpr double operator/(Quantity a, Quantity b) { return a.value / b.value; }
    friend constexpr auto operator<=>(Quantity, Quantity) = default;
};

using Watt = Quantity<struct WattTag>;
using KelvinPerWatt = Quantity<struct KelvinPerWattTag>;
using Millimetre = Quantity<struct MillimetreTag>;
using SquareMillimetre = Quantity<struct SquareMillimetreTag>;
using WattPerMetreKelvin = Quantity<struct WattPerMetreKelvinTag>;
using NewtonMetre = Quantity<struct NewtonMetreTag>;
using Newton = Quantity<struct NewtonTag>;
using Micrometre = Quantity<struct MicrometreTag>;
using Gram = Quantity<struct GramTag>;
using Hour = Quantity<struct HourTag>;

constexpr KelvinPerWatt operator/(Kelvin difference, Watt power) { return {difference.value / power.value}; }
constexpr Kelvin operator*(KelvinPerWatt resistance, Watt power) { return {resistance.value * power.value}; }
constexpr SquareMillimetre operator*(Millimetre a, Millimetre b) { return {a.value * b.value}; }

} // namespace ibuki
