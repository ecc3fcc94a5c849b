// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Cells of stored recordings, as a file that is not trusted may have them. All refuse with InputError
// (project-damaged).

#include "core/base/input_error.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <optional>
#include <string_view>
#include <vector>

namespace ibuki {

inline std::string_view blobOf(const SQLite::Column& column) {
    return {static_cast<const char*>(column.getBlob()), static_cast<std::size_t>(column.getBytes())};
}

/// A count, of a size that it can have.
inline std::size_t countIn(const SQLite::Column& cell, std::size_t most) {
    const std::int64_t count = cell.getInt64();
    if (count < 0 || static_cast<std::uint64_t>(count) > most)
        throw InputError("project-damaged.count", {}, {{"count", count}});
    return static_cast<std::size_t>(count);
}

/// What a word of the channel table means; one that nobody wrote is refused.
template <class T> T knownWord(const std::optional<T>& meaning, const SQLite::Column& cell) {
    if (meaning) return *meaning;
    throw InputError("project-damaged.channel", {}, {{"word", cell.getString()}, {"list", cell.getName()}});
}

/// Finite, never going back, within a span and a length that a recording can have.
void requireTimeAxis(const std::vector<double>& timeS);

} // namespace ibuki
