// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One writer a project: an advisory lock on "<project>-lock" beside the file, gone with the process.

#include <filesystem>

namespace ibuki {

class FileLock {
public:
    FileLock() = default; ///< holds nothing
    /// Throws InputError (project-locked, file-not-writable).
    explicit FileLock(const std::filesystem::path& project);
    ~FileLock();
    FileLock(FileLock&& other) noexcept;
    FileLock& operator=(FileLock&& other) noexcept;

private:
    int fd_ = -1;
    std::filesystem::path path_;
};

} // namespace ibuki
