// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"

using namespace ibuki;

auto sum = Celsius{30} + Celsius{30};
