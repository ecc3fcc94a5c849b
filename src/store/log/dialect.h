// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a separated text is written: separator, decimal sign, where the header stands, whether units stand in
// a row of their own. Found by trying each separator on the first lines and keeping the one that gives
// steady field counts and the most numbers; what the user states is taken as it is.

#include "store/log/text.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

struct Dialect {
    char separator = ',';
    char decimal = '.';
    long headerLine = 1;        ///< 1-based
    long bodyLine = 2;          ///< first line after header and units
    std::size_t bodyOffset = 0; ///< byte offset of that line
    std::vector<std::string> columns;
    std::vector<std::string> units; ///< of a second row, as written; empty without one
    std::size_t fieldsPerRow = 0;   ///< as in the rows; a trailing separator adds one
};

/// What the user states of it.
struct DialectWish {
    std::optional<char> separator;
    std::optional<char> decimal;
    std::optional<long> headerLine;
    bool operator==(const DialectWish&) const = default;
};

/// Blanks are tried when no other gives a table.
inline constexpr char separators[] = {';', '\t', ',', '|', wideBlanks, blanks};

/// Nothing when no line of column names is followed by rows of the same shape.
std::optional<Dialect> detectDialect(std::string_view text, const DialectWish& wish = {});

} // namespace ibuki
