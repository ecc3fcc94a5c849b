// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/quantity.h"

using namespace ibuki;

auto nonsense = Watt{1} + Millimetre{1};
