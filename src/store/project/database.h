// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one way in which a project's file is opened as a database.

#include <memory>
#include <string>

namespace SQLite {
class Database;
}

namespace ibuki {

/// flags: SQLite::OPEN_…. Nothing that a stranger put into the file runs: no trigger, no view, no function in
/// the schema. Throws SQLite::Exception.
std::unique_ptr<SQLite::Database> openDatabase(const std::string& name, int flags);

} // namespace ibuki
