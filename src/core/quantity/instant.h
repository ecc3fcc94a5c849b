// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Calendar instants as the bench's own wall clock shows them, without a zone: logs seldom name one, and only
// order and differences matter to a comparison. Day arithmetic by std::chrono's proleptic Gregorian calendar.

#include <compare>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace ibuki {

/// Milliseconds since 1970-01-01T00:00 on the bench's wall clock.
struct Instant {
    std::int64_t ms = 0;

    friend constexpr auto operator<=>(Instant, Instant) = default;
};

/// So many seconds later.
constexpr Instant laterBy(Instant at, double seconds) {
    return {at.ms + static_cast<std::int64_t>(1'000 * seconds)};
}

/// year 0–9999, month 1–12, day 1–31, milliseconds into the day; nothing for a date that cannot be.
std::optional<Instant> makeInstant(int year, unsigned month, unsigned day, std::int64_t msOfDay = 0);

/// "2031-03-04", "2031-03-04 09:15" and "2031-03-04T09:15:30.5", zeros leading or not; nothing else.
std::optional<Instant> parseInstant(std::string_view text);

std::string dateText(Instant instant);     ///< 2031-03-04
std::string dateTimeText(Instant instant); ///< 2031-03-04 09:15
std::string isoText(Instant instant);      ///< 2031-03-04T09:15:30.500
std::string weekdayText(Instant instant);  ///< Tue
std::int64_t dayNumber(Instant instant);   ///< whole days since 1970-01-01

} // namespace ibuki
