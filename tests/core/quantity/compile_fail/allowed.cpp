// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"

using namespace ibuki;

Kelvin difference = Celsius{30} - Celsius{21};
Celsius warmer = Celsius{21} + Kelvin{2};
KelvinPerWatt resistance = Kelvin{45} / Watt{180};
