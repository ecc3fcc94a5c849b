// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/database.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>

namespace ibuki {
namespace {

constexpr int mostCellBytes = 1 << 29; ///< of anything that stands in one row

} // namespace

std::unique_ptr<SQLite::Database> openDatabase(const std::string& name, int flags) {
    auto database = std::make_unique<SQLite::Database>(name, flags);
    sqlite3* handle = database->getHandle();
    for (int option : {SQLITE_DBCONFIG_ENABLE_TRIGGER, SQLITE_DBCONFIG_ENABLE_VIEW,
                       SQLITE_DBCONFIG_TRUSTED_SCHEMA, SQLITE_DBCONFIG_ENABLE_LOAD_EXTENSION})
        sqlite3_db_config(handle, option, 0, nullptr);
    sqlite3_db_config(handle, SQLITE_DBCONFIG_DEFENSIVE, 1, nullptr);
    sqlite3_limit(handle, SQLITE_LIMIT_LENGTH, mostCellBytes);
    return database;
}

} // namespace ibuki
