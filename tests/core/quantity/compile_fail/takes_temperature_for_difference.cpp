// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"

using namespace ibuki;

Kelvin difference = Celsius{30};
