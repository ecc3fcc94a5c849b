// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Bytes to UTF-8 text, and the fields of a separated line.

#include <charconv>
#include <cmath>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

/// UTF-8 view of the bytes. UTF-8 and plain ASCII are viewed in place; UTF-16 (with mark) is transcoded into
/// `owned`, and so are bytes that are no UTF-8: each of them is taken as Latin-1.
struct DecodedText {
    std::string owned;
    std::string_view inPlace;
    std::string_view view() const { return owned.empty() ? inPlace : std::string_view(owned); }
};

/// Throws InputError (not-text) for bytes that are no text in any of these encodings.
DecodedText decodeText(std::string_view bytes, const std::string& fileName);

std::string_view trim(std::string_view text);

/// Takes the next line off `rest`, without its end; handles \n and \r\n.
std::string_view takeLine(std::string_view& rest);

/// Separators that stand for more than their one letter: columns apart by any number of blanks (spaces,
/// tabs), or by at least two, where single ones stand inside names and cells.
inline constexpr char blanks = ' ';
inline constexpr char wideBlanks = '\x1f';
inline bool isBlankSeparator(char separator) { return separator == blanks || separator == wideBlanks; }

/// Takes the next field off a line whose columns are apart by `separator` (one of the two above); blanks at
/// the ends of the line are none. Nothing at the end of the line.
std::optional<std::string_view> takeBlankField(std::string_view& line, char separator);

/// A line of more fields is no table that anybody wrote; what stands behind them is not split.
inline constexpr std::size_t mostFields = 20'001;

/// Fields of one line, at most mostFields; quotes may hold separators, a doubled quote is a quote.
std::vector<std::string> splitFields(std::string_view line, char separator);

/// A decimal number that fills the whole field (spaces aside); decimal is '.' or ','.
inline std::optional<double> parseNumber(std::string_view field, char decimal) {
    field = trim(field);
    if (!field.empty() && field.front() == '+') field.remove_prefix(1);
    if (field.empty()) return std::nullopt;
    double value = 0;
    if (decimal == '.') {
        const auto [end, error] = std::from_chars(field.data(), field.data() + field.size(), value);
        if (error != std::errc{} || end != field.data() + field.size()) return std::nullopt;
    } else {
        char buffer[40];
        if (field.size() >= sizeof buffer) return std::nullopt;
        for (std::size_t i = 0; i < field.size(); ++i) {
            if (field[i] == '.') return std::nullopt;
            buffer[i] = field[i] == ',' ? '.' : field[i];
        }
        const auto [end, error] = std::from_chars(buffer, buffer + field.size(), value);
        if (error != std::errc{} || end != buffer + field.size()) return std::nullopt;
    }
    if (!std::isfinite(value)) return std::nullopt;
    return value;
}

} // namespace ibuki
