// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Writing a file so that a reader never sees half of it: a temporary file beside the target, synced, then
// renamed over it.

#include <filesystem>
#include <string_view>

namespace ibuki {

/// Throws InputError (file-not-writable) naming the path; the old file is then untouched.
void writeFileAtomically(const std::filesystem::path& path, std::string_view bytes);

/// A name beside `path` for a file that will be renamed over it.
std::filesystem::path temporaryBeside(const std::filesystem::path& path);

/// Syncs `temporary` to disk and renames it over `path`; removes it and throws InputError when that fails.
void putInPlace(const std::filesystem::path& temporary, const std::filesystem::path& path);

} // namespace ibuki
