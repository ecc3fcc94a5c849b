// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Days of the week and times to come back after, as values and as they are written.

#include <array>
#include <string>
#include <vector>

namespace ibuki {

struct Weekdays {
    std::array<bool, 7> days{}; ///< Monday first
    std::string text() const;   ///< "Mon Tue Fri"
    bool any() const;
    bool operator==(const Weekdays&) const = default;
};
inline constexpr Weekdays mondayToFriday{{true, true, true, true, true, false, false}};

/// "Mon Tue Fri", in any case, with spaces or commas. Throws InputError (plan-weekdays).
Weekdays parseWeekdays(const std::string& text);

struct Delay {
    enum class Unit { hours, days, weeks, months, years };
    int count = 0;
    Unit unit = Unit::hours;
    std::string text() const; ///< "6 mo"
    double minutes() const;   ///< about: a month is 30.4 days, a year 365
    bool operator==(const Delay&) const = default;
};

/// "24 h, 5 d, 6 mo". Throws InputError (follow-up) naming the part that cannot be read.
std::vector<Delay> parseDelays(const std::string& text);
std::string textOf(const std::vector<Delay>& delays);

} // namespace ibuki
