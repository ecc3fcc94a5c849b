// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From any format of the project file to today's, step by step (formats/). Format 0 is an empty file that
// bears our id.

namespace SQLite {
class Database;
}

namespace ibuki {

inline constexpr int newestFormat = 13;

/// In one transaction; throws SQLite::Exception and changes nothing when a step fails. from: 0 to
/// newestFormat.
void migrate(SQLite::Database& database, int from);

} // namespace ibuki
