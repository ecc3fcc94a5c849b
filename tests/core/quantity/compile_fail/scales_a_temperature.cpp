// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"

using namespace ibuki;

auto twice = 2.0 * Celsius{30};
