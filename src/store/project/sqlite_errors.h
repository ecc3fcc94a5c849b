// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>

namespace SQLite {
class Exception;
}

namespace ibuki {

/// What the database says of a project, as our own refusal: disk-full, file-not-writable, project-locked,
/// project-not-one, project-damaged.
[[noreturn]] void rethrowSqlite(const std::filesystem::path& project, const SQLite::Exception& error);

} // namespace ibuki
