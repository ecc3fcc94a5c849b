// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From any format of the project file to today's, step by step (formats/). Format 0 is an empty file that
// bears our id.

#include <span>

namespace SQLite {
class Database;
}

namespace ibuki {

/// From one format to the next.
struct FormatStep {
    void (*before)(SQLite::Database&) = nullptr; ///< what statements alone cannot do; nullptr: nothing
    const char* statements = "";
};

/// The step at n leads from format n to format n + 1.
std::span<const FormatStep> formatSteps();

inline constexpr int newestFormat = 1;

/// In one transaction; throws SQLite::Exception and changes nothing when a step fails. from: 0 to the number
/// of steps.
void migrate(SQLite::Database& database, int from, std::span<const FormatStep> steps = formatSteps());

} // namespace ibuki
