// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/file_lock.h"

#include "core/base/input_error.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>
#include <utility>

namespace ibuki {

namespace {

/// The path still leads to the file that was locked: whoever held the lock before may have removed it in
/// between, and the next one would lock another file.
bool stillThere(const std::filesystem::path& path, int fd) {
    struct stat held {};
    struct stat there {};
    return ::fstat(fd, &held) == 0 && ::stat(path.c_str(), &there) == 0 && held.st_dev == there.st_dev
           && held.st_ino == there.st_ino;
}

} // namespace

FileLock::FileLock(const std::filesystem::path& project) {
    std::error_code none;
    const auto real = std::filesystem::weakly_canonical(project, none); // links to one project share its lock
    path_ = (none ? project : real).string() + "-lock";
    for (;;) {
        fd_ = ::open(path_.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
        if (fd_ < 0)
            throw InputError("file-not-writable.lock", {project.string(), {}, {}},
                             {{"reason", std::strerror(errno)}});
        const bool locked = ::flock(fd_, LOCK_EX | LOCK_NB) == 0;
        if (locked && stillThere(path_, fd_)) return;
        ::close(fd_);
        fd_ = -1;
        if (!locked) break;
    }
    throw InputError("project-locked", {project.string(), {}, {}});
}

FileLock::~FileLock() {
    if (fd_ < 0) return;
    ::unlink(path_.c_str());
    ::close(fd_);
}

FileLock::FileLock(FileLock&& other) noexcept
    : fd_(std::exchange(other.fd_, -1)), path_(std::move(other.path_)) {}

FileLock& FileLock::operator=(FileLock&& other) noexcept {
    std::swap(fd_, other.fd_);
    std::swap(path_, other.path_);
    return *this;
}

} // namespace ibuki
