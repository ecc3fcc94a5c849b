// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/plan_values.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <string_view>

namespace ibuki {
namespace {

constexpr std::array<std::string_view, 5> unitWords{"h", "d", "w", "mo", "y"};

} // namespace

std::string Weekdays::text() const {
    static constexpr std::array<const char*, 7> names{"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"};
    std::string text;
    for (std::size_t i = 0; i < days.size(); ++i)
        if (days[i]) text.append(text.empty() ? "" : " ").append(names[i]);
    return text;
}

bool Weekdays::any() const {
    return std::any_of(days.begin(), days.end(), [](bool day) { return day; });
}

Weekdays parseWeekdays(const std::string& text) {
    static constexpr std::array<std::string_view, 7> names{"mon", "tue", "wed", "thu", "fri", "sat", "sun"};
    Weekdays read;
    std::string word;
    const auto take = [&] {
        if (word.empty()) return;
        const auto found = std::find(names.begin(), names.end(), word.substr(0, 3));
        if (found == names.end()) throw InputError("plan-weekdays", {}, {{"word", word}});
        read.days.at(static_cast<std::size_t>(found - names.begin())) = true;
        word.clear();
    };
    for (char c : text) {
        if (c == ' ' || c == ',' || c == ';')
            take();
        else
            word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    }
    take();
    return read;
}

std::string Delay::text() const {
    return fmt::format("{} {}", count, unitWords.at(static_cast<std::size_t>(unit)));
}

double Delay::minutes() const {
    static constexpr std::array<double, 5> each{60, 1440, 7 * 1440, 30.4 * 1440, 365 * 1440};
    return count * each.at(static_cast<std::size_t>(unit));
}

constexpr std::size_t mostDelays = 100;

std::vector<Delay> parseDelays(const std::string& text) {
    std::vector<Delay> delays;
    std::size_t begin = 0;
    while (begin <= text.size()) {
        const std::size_t end = std::min(text.find_first_of(",;", begin), text.size());
        std::string part = text.substr(begin, end - begin);
        std::erase(part, ' ');
        begin = end + 1;
        if (part.empty()) continue;
        std::size_t digits = 0;
        while (digits < part.size() && part[digits] >= '0' && part[digits] <= '9') ++digits;
        const auto unit = std::find(unitWords.begin(), unitWords.end(), part.substr(digits));
        if (digits == 0 || digits > 4 || unit == unitWords.end() || std::stoi(part.substr(0, digits)) == 0)
            throw InputError("follow-up", {}, {{"part", part}});
        if (delays.size() == mostDelays)
            throw InputError("follow-up.many", {}, {{"most", static_cast<int>(mostDelays)}});
        delays.push_back(
            {std::stoi(part.substr(0, digits)), static_cast<Delay::Unit>(unit - unitWords.begin())});
    }
    return delays;
}

std::string textOf(const std::vector<Delay>& delays) {
    std::string text;
    for (const Delay& delay : delays) text.append(text.empty() ? "" : ", ").append(delay.text());
    return text;
}

} // namespace ibuki
