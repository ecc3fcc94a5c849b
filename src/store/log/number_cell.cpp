// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/number_cell.h"

#include "core/base/nan.h"

#include "store/log/text.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace ibuki {
namespace {

bool isDigit(char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; }

/// The number at the front without the signs that set thousands apart; empty when groups are not threes.
std::string ungrouped(std::string_view digits, char decimal) {
    const char grouping = decimal == '.' ? ',' : '.';
    std::string plain;
    std::size_t sinceGroup = 0;
    bool grouped = false;
    bool fraction = false;
    for (char c : digits) {
        if (!fraction && (c == grouping || c == '\'' || c == ' ')) {
            if (grouped && sinceGroup != 3) return {};
            grouped = true;
            sinceGroup = 0;
            continue;
        }
        if (c == decimal) {
            if (grouped && sinceGroup != 3) return {};
            fraction = true;
        }
        plain += c;
        ++sinceGroup;
    }
    if (grouped && !fraction && sinceGroup != 3) return {};
    return plain;
}

} // namespace

std::optional<LooseNumber> looseNumber(std::string_view field, char decimal) {
    field = trim(field);
    if (field.empty() || !(isDigit(field.front()) || field.front() == '-' || field.front() == '+'))
        return std::nullopt;
    std::size_t end = 1;
    while (end < field.size()
           && (isDigit(field[end]) || field[end] == '.' || field[end] == ',' || field[end] == '\''
               || (field[end] == ' ' && end + 1 < field.size() && isDigit(field[end + 1]))))
        ++end;
    const std::string_view rest = trim(field.substr(end));
    LooseNumber number;
    if (!rest.empty()) {
        const auto unit = unitFromText(rest);
        if (!unit) return std::nullopt;
        number.unit = *unit;
    }
    auto value = parseNumber(field.substr(0, end), decimal);
    if (!value) value = parseNumber(ungrouped(field.substr(0, end), decimal), decimal);
    if (!value) return std::nullopt;
    number.value = *value;
    return number;
}

std::optional<double> flagValue(std::string_view field) {
    static constexpr std::array<std::string_view, 9> yes{"yes", "on", "true", "active", "ja",
                                                         "ein", "sí", "si",   "是"};
    static constexpr std::array<std::string_view, 8> no{"no",   "off", "false", "inactive",
                                                        "nein", "aus", "none",  "否"};
    std::string word(trim(field));
    std::transform(word.begin(), word.end(), word.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    if (std::find(yes.begin(), yes.end(), word) != yes.end()) return 1.0;
    if (std::find(no.begin(), no.end(), word) != no.end()) return 0.0;
    return std::nullopt;
}

double channelValue(std::string_view field, const Channel& channel, char decimal) {
    if (const auto number = parseNumber(field, decimal)) return toCanonical(*number, channel.fileUnit);
    if (field.empty()) return nan;
    if (const auto loose = looseNumber(field, decimal))
        return toCanonical(loose->value, loose->unit == Unit::none ? channel.fileUnit : loose->unit);
    if (channel.role == Role::limitFlag) return flagValue(field).value_or(nan);
    return nan;
}

} // namespace ibuki
