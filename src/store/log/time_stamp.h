// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One stamp of a log: elapsed seconds, ISO 8601, a date with a clock, or a clock alone.

#include "core/quantity/instant.h"

#include <optional>
#include <string_view>

namespace ibuki {

enum class DateOrder { yearMonthDay, dayMonthYear, monthDayYear };

struct Stamp {
    std::optional<std::int64_t> day; ///< whole days since 1970-01-01; nothing for a clock alone
    double secondOfDay = 0;
    bool hasClock = false;
    std::optional<int> zoneMinutes; ///< east of Greenwich, where it is written
};

/// Reads "2031-03-04T14:02:11.250Z", "3.4.2031", "08/17/2031 11:39:02 AM", "23:41:12,5", "2031年3月4日
/// 14時02分11秒", "4 Mar 2031 2:02:11 p. m.", "上午 9:41:12", also "26:10:00" of a clock that counts hours;
/// nothing for others.
std::optional<Stamp> parseStamp(std::string_view text, DateOrder order);

/// The order that the first number pair of these dates allows: a first number above 12 is a day, a second
/// above 12 tells a month first; points mean day first, slashes month first when nothing tells.
DateOrder dateOrderOf(std::string_view sample);

/// The numbers of this date leave no other order.
bool isCertain(std::string_view sample);

} // namespace ibuki
