// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which file a path stands for: two paths may stand for one file, and one path for another file later.

#include <filesystem>
#include <optional>
#include <sys/types.h>

namespace ibuki {

struct FileIdentity {
    dev_t device = 0;
    ino_t inode = 0;
    bool operator==(const FileIdentity&) const = default;
};

/// Of what the path leads to, links followed; nothing when it leads nowhere.
std::optional<FileIdentity> identityOf(const std::filesystem::path& path);

/// Of an open file.
std::optional<FileIdentity> identityOf(int descriptor);

} // namespace ibuki
