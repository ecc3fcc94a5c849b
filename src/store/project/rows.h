// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Domain values to and from rows of the project's tables, all derived from the lists in schema.h.

#include "core/domain/edit.h"

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace ibuki {

/// CREATE TABLE statements, parents first.
std::vector<std::string> entityTables();
bool hasColumn(SQLite::Database& database, const std::string& table, const std::string& column);
/// Brings an older file's tables up to the schema; what is new gets its default value.
void addMissingColumns(SQLite::Database& database);

/// Reads every table. Throws InputError (project-damaged).
Document readDocument(SQLite::Database& database);

/// Inserts, replaces or deletes the row of each change.
void writeChanges(SQLite::Database& database, const std::vector<Change>& changes);

/// For the history: [{table, id, before, after}] with the members that differ.
nlohmann::ordered_json describe(const std::vector<Change>& changes);

} // namespace ibuki
