// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Domain values to and from rows of the project's tables, all derived from the lists in columns.h.

#include "core/domain/edit.h"

#include <cstdint>
#include <nlohmann/json.hpp>
#include <stop_token>
#include <vector>

namespace SQLite {
class Database;
}

namespace ibuki {

inline constexpr std::int64_t mostId = std::int64_t{1} << 53; ///< of a value; exact as a number of JSON

/// Reads every table. Throws InputError (project-damaged) that names table, row and column.
Document readDocument(SQLite::Database& database);

/// Reads what is kept as it is stored until somebody asks for it. `stopped` is asked now and then; it throws
/// as readDocument does.
void decodeAll(const Document& document, const std::stop_token& stopped = {});

/// Inserts, replaces or deletes the row of each change.
void writeChanges(SQLite::Database& database, const std::vector<Change>& changes);

/// For the history: [{table, id, before, after}] with the members that differ.
nlohmann::ordered_json describe(const std::vector<Change>& changes);

} // namespace ibuki
