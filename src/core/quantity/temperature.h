// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Affine temperature types: a Celsius is a point on the scale, a Kelvin is a difference between two points.
// Adding two points, or passing a difference where a point is due, does not compile
// (tests/core/quantity/compile_fail). Source: the affine model of a measurement scale, BIPM SI
// brochure 2.3.1.

#include <compare>

namespace ibuki {

/// A temperature difference in kelvin.
struct Kelvin {
    double value = 0;

    friend constexpr Kelvin operator+(Kelvin a, Kelvin b) { return {a.value + b.value}; }
    friend constexpr Kelvin operator-(Kelvin a, Kelvin b) { return {a.value - b.value}; }
    friend constexpr Kelvin operator-(Kelvin a) { return {-a.value}; }
    friend constexpr Kelvin operator*(double factor, Kelvin a) { return {factor * a.value}; }
    friend constexpr auto operator<=>(Kelvin, Kelvin) = default;
};

/// A temperature on the Celsius scale.
struct Celsius {
    double value = 0;

    friend constexpr Kelvin operator-(Celsius a, Celsius b) { return {a.value - b.value}; }
    friend constexpr Celsius operator+(Celsius a, Kelvin b) { return {a.value + b.value}; }
    friend constexpr Celsius operator-(Celsius a, Kelvin b) { return {a.value - b.value}; }
    friend constexpr auto operator<=>(Celsius, Celsius) = default;
};

/// A temperature read in °F. A difference of 9 °F is 5 K; a reading of 32 °F is 0 °C.
constexpr Celsius celsiusFromFahrenheit(double readingF) { return {(readingF - 32.0) / 1.8}; }
constexpr Celsius celsiusFromKelvinScale(double readingK) { return {readingK - 273.15}; }

} // namespace ibuki
