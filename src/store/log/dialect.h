// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a separated text is written: separator, decimal sign, where the header stands. Found by trying each
// separator on the first lines and keeping the one that gives steady field counts and the most numbers.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

struct Dialect {
    char separator = ',';
    char decimal = '.';
    long headerLine = 1;        ///< 1-based
    std::size_t bodyOffset = 0; ///< byte offset of the first line after the header
    std::vector<std::string> columns;
    std::size_t fieldsPerRow = 0; ///< as in the rows; a trailing separator adds one
};

/// Nothing when no line of column names is followed by rows of the same shape.
std::optional<Dialect> detectDialect(std::string_view text);

} // namespace ibuki
