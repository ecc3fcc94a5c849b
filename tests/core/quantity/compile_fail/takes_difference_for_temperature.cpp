// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"

using namespace ibuki;

Celsius temperature = Kelvin{30};
