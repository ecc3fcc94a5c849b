// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Writing a file so that a reader never sees half of it, and a kill leaves nothing behind: a file without a
// name in the target's folder, synced, then given a name and renamed over the target.

#include <filesystem>
#include <string_view>
#include <vector>

namespace ibuki {

/// Keeps the mode of what it replaces. Throws InputError (file-not-writable) naming the path, and
/// (target-is-project) rather than replace a project; the old file is then untouched.
void writeFileAtomically(const std::filesystem::path& path, std::string_view bytes);

/// Throws InputError (target-is-input) when the target is one of the files that are read from.
void refuseInputAsTarget(const std::filesystem::path& target,
                         const std::vector<std::filesystem::path>& inputs);

/// Makes an empty file beside `path`, which will be renamed over it; its name is nobody else's, a link
/// planted there is not followed. Removes what killed processes of this user left in the folder. Throws
/// InputError (file-not-writable).
std::filesystem::path makePartBeside(const std::filesystem::path& path);

/// Syncs `part` to disk and renames it over `path`; removes it and throws InputError when that fails.
void putInPlace(const std::filesystem::path& part, const std::filesystem::path& path);

} // namespace ibuki
