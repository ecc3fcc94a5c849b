// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/time_stamp.h"

#include "store/log/text.h"

#include <cctype>
#include <charconv>

namespace ibuki {
namespace {

bool takeUnsigned(std::string_view& text, unsigned& number, std::size_t& digits) {
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc{}) return false;
    digits = static_cast<std::size_t>(end - text.data());
    text.remove_prefix(digits);
    return true;
}

bool skipOne(std::string_view& text, std::string_view anyOf) {
    if (text.empty() || anyOf.find(text.front()) == std::string_view::npos) return false;
    text.remove_prefix(1);
    return true;
}

struct ThreeNumbers {
    unsigned a = 0;
    unsigned b = 0;
    unsigned c = 0;
    bool yearFirst = false;
    char mark = '-';
};

std::optional<ThreeNumbers> takeDate(std::string_view& text) {
    ThreeNumbers date;
    std::size_t digits = 0;
    std::size_t ignored = 0;
    std::string_view rest = text;
    if (!takeUnsigned(rest, date.a, digits) || rest.empty()) return std::nullopt;
    date.mark = rest.front();
    if (!skipOne(rest, "-./") || !takeUnsigned(rest, date.b, ignored) || !skipOne(rest, "-./")
        || !takeUnsigned(rest, date.c, ignored))
        return std::nullopt;
    date.yearFirst = digits == 4;
    text = rest;
    return date;
}

std::optional<std::int64_t> dayOf(const ThreeNumbers& date, DateOrder order) {
    unsigned year = date.c;
    unsigned month = date.b;
    unsigned day = date.a;
    if (date.yearFirst) {
        year = date.a;
        day = date.c;
    } else if (order == DateOrder::monthDayYear) {
        month = date.a;
        day = date.b;
    }
    if (year < 100) year += 2000;
    const auto instant = makeInstant(static_cast<int>(year), month, day);
    if (!instant) return std::nullopt;
    return dayNumber(*instant);
}

std::optional<double> takeClock(std::string_view& text) {
    unsigned hour = 0;
    unsigned minute = 0;
    std::size_t digits = 0;
    if (!takeUnsigned(text, hour, digits) || !skipOne(text, ":") || !takeUnsigned(text, minute, digits))
        return std::nullopt;
    double second = 0;
    if (skipOne(text, ":")) {
        unsigned whole = 0;
        if (!takeUnsigned(text, whole, digits)) return std::nullopt;
        second = whole;
        if (skipOne(text, ".,:")) {
            unsigned fraction = 0;
            if (!takeUnsigned(text, fraction, digits)) return std::nullopt;
            double scale = 1;
            for (std::size_t i = 0; i < digits; ++i) scale *= 10;
            second += fraction / scale;
        }
    }
    text = trim(text);
    if (text.size() >= 2 && (text[1] == 'M' || text[1] == 'm')) {
        const char half = static_cast<char>(std::tolower(static_cast<unsigned char>(text[0])));
        if ((half != 'a' && half != 'p') || hour < 1 || hour > 12) return std::nullopt;
        hour = hour % 12 + (half == 'p' ? 12 : 0);
        text.remove_prefix(2);
    }
    if (hour > 9'999 || minute > 59 || second >= 61) return std::nullopt;
    return hour * 3600.0 + minute * 60.0 + second;
}

/// Takes "Z", "+01:00", "-0530", "UTC+2" or nothing; false for other text.
bool takeZone(std::string_view text, std::optional<int>& minutesEast) {
    text = trim(text);
    if (text.empty()) return true;
    if (text.starts_with("UTC") || text.starts_with("GMT")) text = trim(text.substr(3));
    minutesEast = 0;
    if (text.empty() || text == "Z" || text == "z") return true;
    const char sign = text.front();
    if (sign != '+' && sign != '-') return false;
    text.remove_prefix(1);
    unsigned hours = 0;
    unsigned minutes = 0;
    std::size_t digits = 0;
    if (!takeUnsigned(text, hours, digits)) return false;
    if (digits > 2) {
        minutes = hours % 100;
        hours /= 100;
    } else if (skipOne(text, ":") && !takeUnsigned(text, minutes, digits)) {
        return false;
    }
    if (!trim(text).empty() || hours > 15 || minutes > 59) return false;
    const int all = static_cast<int>(60 * hours + minutes);
    minutesEast = sign == '-' ? -all : all;
    return true;
}

} // namespace

std::optional<Stamp> parseStamp(std::string_view text, DateOrder order) {
    text = trim(text);
    Stamp stamp;
    if (const auto date = takeDate(text)) {
        stamp.day = dayOf(*date, order);
        if (!stamp.day) return std::nullopt;
        if (text.empty()) return stamp;
        if (!skipOne(text, "T ")) return std::nullopt;
        text = trim(text);
        if (text.empty()) return stamp;
    }
    const auto clock = takeClock(text);
    if (!clock) return std::nullopt;
    if (!takeZone(text, stamp.zoneMinutes) || (stamp.day && *clock >= 25 * 3600.0)) return std::nullopt;
    stamp.secondOfDay = *clock;
    return stamp;
}

DateOrder dateOrderOf(std::string_view sample) {
    sample = trim(sample);
    const auto date = takeDate(sample);
    if (!date || date->yearFirst) return DateOrder::yearMonthDay;
    if (date->a > 12) return DateOrder::dayMonthYear;
    if (date->b > 12) return DateOrder::monthDayYear;
    return date->mark == '/' ? DateOrder::monthDayYear : DateOrder::dayMonthYear;
}

bool isCertain(std::string_view sample) {
    sample = trim(sample);
    const auto date = takeDate(sample);
    return date && (date->yearFirst || date->a > 12 || date->b > 12);
}

} // namespace ibuki
