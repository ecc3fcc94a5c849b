// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/span.h"

namespace ibuki {

Message spanMessage(double hours) {
    constexpr double hoursPerMonth = hoursPerYear / 12;
    if (hours < 10) return {"time-span.few-hours", {{"value", hours}}};
    if (hours < 72) return {"time-span.hours", {{"value", hours}}};
    if (hours < 90 * hoursPerDay) return {"time-span.days", {{"value", hours / hoursPerDay}}};
    if (hours < 1.5 * hoursPerYear) return {"time-span.months", {{"value", hours / hoursPerMonth}}};
    return {"time-span.years", {{"value", hours / hoursPerYear}}};
}

} // namespace ibuki
