// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One writer a project: an advisory lock on the file itself, so that links to it lock the same; gone with the
// process.

#include "store/file_identity.h"

#include <filesystem>

namespace ibuki {

class FileLock {
public:
    FileLock() = default; ///< holds nothing
    /// Of a file that exists. Throws InputError (project-locked, file-not-writable).
    explicit FileLock(const std::filesystem::path& project);
    ~FileLock();
    FileLock(FileLock&& other) noexcept;
    FileLock& operator=(FileLock&& other) noexcept;

    /// Whether this process has a lock on it. Asked before any other handle to the file is made, since
    /// closing that one would end SQLite's own locks (fcntl(2)).
    static bool isHeldHere(const FileIdentity& file);
    /// Whether anybody, this process too, holds one on the file. Only before it is opened otherwise.
    static bool isHeld(const std::filesystem::path& project);

private:
    int fd_ = -1;
    FileIdentity file_;
};

} // namespace ibuki
