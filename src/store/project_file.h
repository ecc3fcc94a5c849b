// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A project as a file among others: which files are one, which one this process has open, what may stand
// beside one. SQLite's own locks on a file are lost when any other handle of the process to that file is
// closed; whoever opens files therefore asks here first.

#include <filesystem>

namespace ibuki {

inline constexpr int projectApplicationId = 0x49425549; ///< "IBUI"

/// Bears a project's mark, told from its first bytes; also one that this process has open.
bool isProjectFile(const std::filesystem::path& path);

/// Whether this process holds the file that the path leads to as a writer.
bool isOpenHere(const std::filesystem::path& path);

/// What SQLite would take up beside a project is a regular file, no link, pipe or folder. Throws InputError
/// (project-not-one.beside) naming it.
void refusePlantedBeside(const std::filesystem::path& project);

/// Throws InputError (file-missing, file-unreadable, project-not-one) unless it is a regular file.
void requireRegularFile(const std::filesystem::path& project);

} // namespace ibuki
