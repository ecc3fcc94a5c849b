// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/quantity/instant.h"

#include <array>
#include <charconv>
#include <chrono>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

constexpr std::int64_t msPerDay = 86'400'000;

std::chrono::year_month_day calendarDay(Instant instant) {
    return std::chrono::year_month_day{std::chrono::sys_days{std::chrono::days{dayNumber(instant)}}};
}

template <class Number> bool take(std::string_view& text, Number& number) {
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc{}) return false;
    text.remove_prefix(static_cast<std::size_t>(end - text.data()));
    return true;
}

bool skip(std::string_view& text, std::string_view anyOf) {
    if (text.empty() || anyOf.find(text.front()) == std::string_view::npos) return false;
    text.remove_prefix(1);
    return true;
}

} // namespace

std::int64_t dayNumber(Instant instant) {
    const std::int64_t day = instant.ms / msPerDay;
    return instant.ms % msPerDay < 0 ? day - 1 : day;
}

std::optional<Instant> makeInstant(int year, unsigned month, unsigned day, std::int64_t msOfDay) {
    // The calendar's types hold no more than a byte or two: 257 would be January.
    if (year < 0 || year > 9999 || month > 12 || day > 31) return std::nullopt;
    const std::chrono::year_month_day date{std::chrono::year{year}, std::chrono::month{month},
                                           std::chrono::day{day}};
    if (!date.ok()) return std::nullopt;
    return Instant{std::chrono::sys_days{date}.time_since_epoch().count() * msPerDay + msOfDay};
}

std::optional<Instant> parseInstant(std::string_view text) {
    int year = 0;
    unsigned month = 0;
    unsigned day = 0;
    if (!take(text, year) || !skip(text, "-") || !take(text, month) || !skip(text, "-") || !take(text, day))
        return std::nullopt;
    unsigned hour = 0;
    unsigned minute = 0;
    double second = 0;
    if (!text.empty()) {
        if (!skip(text, " T") || !take(text, hour) || !skip(text, ":") || !take(text, minute))
            return std::nullopt;
        if (skip(text, ":") && !take(text, second)) return std::nullopt;
        if (!text.empty() || hour > 23 || minute > 59 || !(second >= 0 && second < 60)) return std::nullopt;
    }
    return makeInstant(year, month, day, (hour * 60LL + minute) * 60'000 + std::llround(second * 1000));
}

std::string dateText(Instant instant) {
    const auto day = calendarDay(instant);
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(day.year()), static_cast<unsigned>(day.month()),
                       static_cast<unsigned>(day.day()));
}

std::string dateTimeText(Instant instant) {
    const std::int64_t minutes = (instant.ms - dayNumber(instant) * msPerDay) / 60'000;
    return fmt::format("{} {:02}:{:02}", dateText(instant), minutes / 60, minutes % 60);
}

std::string isoText(Instant instant) {
    const std::int64_t msOfDay = instant.ms - dayNumber(instant) * msPerDay;
    return fmt::format("{}T{:02}:{:02}:{:02}.{:03}", dateText(instant), msOfDay / 3'600'000,
                       msOfDay / 60'000 % 60, msOfDay / 1000 % 60, msOfDay % 1000);
}

std::string weekdayText(Instant instant) {
    static constexpr std::array names{"Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"};
    const std::chrono::weekday day{std::chrono::sys_days{std::chrono::days{dayNumber(instant)}}};
    return names.at(day.c_encoding());
}

} // namespace ibuki
