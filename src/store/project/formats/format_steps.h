// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What leads from one format of the project file to the next, frozen: statements as they were written for
// that format. A step that has been published is never edited; today's columns (columns.h) play no part in
// it. A new project goes through all of them.

namespace SQLite {
class Database;
}

namespace ibuki {

extern const char* const format1;
extern const char* const format2;
extern const char* const format3;
extern const char* const format4;
extern const char* const format5;
extern const char* const format6;
extern const char* const format7;
extern const char* const format8;
extern const char* const format9;
extern const char* const format10;
extern const char* const format11;
extern const char* const format12;
extern const char* const format13;

/// Before the statements of format 6: pictures go from their rows to the table of files, by their digest;
/// days and times to come back after that cannot be read go to the remarks.
void beforeFormat6(SQLite::Database& database);

/// Before the statements of format 7: sentences of flags, of the history and of how a log was read become
/// messages.
void beforeFormat7(SQLite::Database& database);

} // namespace ibuki
