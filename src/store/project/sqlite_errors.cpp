// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/sqlite_errors.h"

#include "core/base/input_error.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>

namespace ibuki {

void rethrowSqlite(const std::filesystem::path& project, const SQLite::Exception& error) {
    const InputError::Where where{project.string(), {}, {}};
    switch (error.getErrorCode()) {
    case SQLITE_FULL:
        throw InputError("disk-full", where);
    case SQLITE_READONLY:
    case SQLITE_CANTOPEN:
    case SQLITE_PERM:
        throw InputError("file-not-writable.project", where);
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
        throw InputError("project-locked.program", where);
    case SQLITE_NOTADB:
        throw InputError("project-not-one", where);
    case SQLITE_IOERR:
        throw InputError("file-not-writable.failed", where);
    default:
        throw InputError("project-damaged.database", where, {{"reason", error.getErrorStr()}});
    }
}

} // namespace ibuki
