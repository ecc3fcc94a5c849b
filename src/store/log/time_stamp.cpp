// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/time_stamp.h"

#include "store/log/text.h"

#include <cctype>
#include <charconv>
#include <string>
#include <utility>

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

bool skipWord(std::string_view& text, std::string_view word) {
    if (!text.starts_with(word)) return false;
    text.remove_prefix(word.size());
    return true;
}

/// Spaces of all widths that clocks are written with.
void skipSpaces(std::string_view& text) {
    while (skipOne(text, " \t") || skipWord(text, "\u00a0") || skipWord(text, "\u202f")) {
    }
}

struct ThreeNumbers {
    unsigned a = 0;
    unsigned b = 0;
    unsigned c = 0;
    bool yearFirst = false;
    bool named = false; ///< the month is a word and b
    char mark = '-';
};

/// "Mar", "märz", "Abr.", "dic": the month, by its first three letters in English, German or Spanish.
std::optional<unsigned> takeMonthName(std::string_view& text) {
    struct Name {
        std::string_view start;
        unsigned month;
    };
    static constexpr Name names[] = {
        {"jan", 1}, {"ene", 1},  {"feb", 2},  {"mar", 3},  {"mär", 3},  {"mrz", 3},  {"apr", 4},
        {"abr", 4}, {"may", 5},  {"mai", 5},  {"jun", 6},  {"jul", 7},  {"aug", 8},  {"ago", 8},
        {"sep", 9}, {"oct", 10}, {"okt", 10}, {"nov", 11}, {"dec", 12}, {"dez", 12}, {"dic", 12}};
    const auto isLetter = [](char c) {
        return std::isalpha(static_cast<unsigned char>(c)) != 0 || static_cast<unsigned char>(c) >= 0x80;
    };
    std::size_t length = 0;
    while (length < text.size() && length < 12 && isLetter(text[length])) ++length;
    std::string word(text.substr(0, length));
    for (char& c : word)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    for (const Name& name : names)
        if (word.starts_with(name.start)) {
            text.remove_prefix(length);
            skipOne(text, ".");
            return name.month;
        }
    return std::nullopt;
}

/// What stands behind the first (place 0) and the second number of a date.
bool skipDateMark(std::string_view& text, int place) {
    return skipOne(text, "-./") || skipWord(text, place == 0 ? "年" : "月");
}

std::optional<ThreeNumbers> takeDate(std::string_view& text) {
    ThreeNumbers date;
    std::size_t digits = 0;
    std::size_t ignored = 0;
    std::string_view rest = text;
    if (!takeUnsigned(rest, date.a, digits) || rest.empty()) return std::nullopt;
    date.mark = rest.front();
    const bool marked = skipDateMark(rest, 0);
    const bool spaced = skipOne(rest, " "); // then only a month's name may follow
    if (!marked && !spaced) return std::nullopt;
    if (const auto month = takeMonthName(rest)) {
        date.b = *month;
        date.named = true;
        if (!skipOne(rest, " -./")) return std::nullopt;
    } else if (spaced || !takeUnsigned(rest, date.b, ignored) || !skipDateMark(rest, 1)) {
        return std::nullopt;
    }
    if (!takeUnsigned(rest, date.c, ignored)) return std::nullopt;
    skipWord(rest, "日");
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
    } else if (order == DateOrder::monthDayYear && !date.named) {
        month = date.a;
        day = date.b;
    }
    if (year < 100) year += 2000;
    const auto instant = makeInstant(static_cast<int>(year), month, day);
    if (!instant) return std::nullopt;
    return dayNumber(*instant);
}

/// "AM", "p.m.", "p. m.", "上午": false for the morning, true for the afternoon, taken off the text.
std::optional<bool> takeHalfOfDay(std::string_view& text) {
    for (const auto& [word, afternoon] :
         {std::pair<std::string_view, bool>{"午前", false}, {"上午", false}, {"午後", true}, {"下午", true}})
        if (skipWord(text, word)) return afternoon;
    std::string_view rest = text;
    const bool morning = skipOne(rest, "aA");
    if (!morning && !skipOne(rest, "pP")) return std::nullopt;
    skipOne(rest, ".");
    skipSpaces(rest);
    if (!skipOne(rest, "mM")) return std::nullopt;
    skipOne(rest, ".");
    text = rest;
    return !morning;
}

std::optional<double> takeSeconds(std::string_view& text) {
    unsigned whole = 0;
    std::size_t digits = 0;
    if (!takeUnsigned(text, whole, digits)) return std::nullopt;
    double second = whole;
    if (skipOne(text, ".,:")) {
        unsigned fraction = 0;
        if (!takeUnsigned(text, fraction, digits)) return std::nullopt;
        double scale = 1;
        for (std::size_t i = 0; i < digits; ++i) scale *= 10;
        second += fraction / scale;
    }
    skipWord(text, "秒");
    return second;
}

std::optional<double> takeClock(std::string_view& text) {
    unsigned hour = 0;
    unsigned minute = 0;
    std::size_t digits = 0;
    auto half = takeHalfOfDay(text);
    if (half) skipSpaces(text);
    if (!takeUnsigned(text, hour, digits)) return std::nullopt;
    if (!skipOne(text, ":") && !skipWord(text, "時") && !skipWord(text, "时")) return std::nullopt;
    if (!takeUnsigned(text, minute, digits)) return std::nullopt;
    double second = 0;
    const bool spoken = skipWord(text, "分"); // behind it, the seconds may be missing
    const bool more = spoken ? !text.empty() && std::isdigit(static_cast<unsigned char>(text.front())) != 0
                             : skipOne(text, ":");
    if (more) {
        const auto seconds = takeSeconds(text);
        if (!seconds) return std::nullopt;
        second = *seconds;
    }
    skipSpaces(text);
    if (!half) half = takeHalfOfDay(text);
    if (half) {
        if (hour > 12) return std::nullopt;
        hour = hour % 12 + (*half ? 12 : 0);
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
        if (!skipOne(text, "T ,") && !date->yearFirst)
            return std::nullopt; // 2031年3月4日14時 has nothing between
        text = trim(text);
        if (text.empty()) return stamp;
    }
    const auto clock = takeClock(text);
    if (!clock) return std::nullopt;
    if (!takeZone(text, stamp.zoneMinutes) || (stamp.day && *clock >= 25 * 3600.0)) return std::nullopt;
    stamp.secondOfDay = *clock;
    stamp.hasClock = true;
    return stamp;
}

DateOrder dateOrderOf(std::string_view sample) {
    sample = trim(sample);
    const auto date = takeDate(sample);
    if (!date || date->yearFirst) return DateOrder::yearMonthDay;
    if (date->named) return DateOrder::dayMonthYear;
    if (date->a > 12) return DateOrder::dayMonthYear;
    if (date->b > 12) return DateOrder::monthDayYear;
    return date->mark == '/' ? DateOrder::monthDayYear : DateOrder::dayMonthYear;
}

bool isCertain(std::string_view sample) {
    sample = trim(sample);
    const auto date = takeDate(sample);
    return date && (date->yearFirst || date->named || date->a > 12 || date->b > 12);
}

} // namespace ibuki
