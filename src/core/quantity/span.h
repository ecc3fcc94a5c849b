// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/message.h"

namespace ibuki {

constexpr double msPerHour = 3'600'000;
constexpr double hoursPerDay = 24;
constexpr double hoursPerYear = 365.25 * hoursPerDay;

/// A span of time as a person says it: "6 h", "5 days", "4 months", "2.3 years".
Message spanMessage(double hours);

} // namespace ibuki
