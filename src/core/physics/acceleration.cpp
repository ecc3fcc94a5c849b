// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/physics/acceleration.h"

#include <cmath>

namespace ibuki {
namespace {

constexpr double boltzmannEvPerK = 8.617333262e-5; // CODATA 2018
constexpr double daysPerYear = 365.25;

double kelvinOf(Celsius at) { return at.value + 273.15; }

double byTemperature(double perKelvin, Celsius use, Celsius test) {
    return std::exp(perKelvin * (1 / kelvinOf(use) - 1 / kelvinOf(test)));
}

} // namespace

double arrheniusFactor(double activationEv, Celsius use, Celsius test) {
    return byTemperature(activationEv / boltzmannEvPerK, use, test);
}

double coffinMansonFactor(double exponent, Kelvin use, Kelvin test) {
    return std::pow(test.value / use.value, exponent);
}

double norrisLandzbergFactor(const NorrisLandzberg& constants, const Cycling& use, const Cycling& test) {
    return std::pow(test.swing.value / use.swing.value, constants.swingExponent)
           * std::pow(use.perDay / test.perDay, constants.frequencyExponent)
           * byTemperature(constants.perKelvin, use.hottest, test.hottest);
}

std::optional<Accelerated> testFor(const UseAndTest& asked, double years) {
    if (!(years > 0)) return std::nullopt;
    Accelerated made;
    const double days = years * daysPerYear;
    if (asked.by == WearBy::heat) {
        if (!(asked.activationEv > 0 && asked.useHoursPerDay > 0 && asked.testHoursPerDay > 0))
            return std::nullopt;
        made.factor = arrheniusFactor(asked.activationEv, asked.use.hottest, asked.test.hottest);
        made.testDays = days * asked.useHoursPerDay / (made.factor * asked.testHoursPerDay);
    } else {
        if (!(asked.use.swing.value > 0 && asked.test.swing.value > 0 && asked.use.perDay > 0
              && asked.test.perDay > 0))
            return std::nullopt;
        made.factor = asked.by == WearBy::swings
                          ? coffinMansonFactor(asked.exponent, asked.use.swing, asked.test.swing)
                          : norrisLandzbergFactor(asked.solder, asked.use, asked.test);
        made.testCycles = days * asked.use.perDay / made.factor;
        made.testDays = made.testCycles / asked.test.perDay;
    }
    if (!(made.factor >= 1) || !std::isfinite(made.testDays)) return std::nullopt;
    return made;
}

} // namespace ibuki
