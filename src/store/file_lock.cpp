// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/file_lock.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cerrno>
#include <chrono>
#include <cstring>
#include <fcntl.h>
#include <mutex>
#include <sys/file.h>
#include <thread>
#include <unistd.h>
#include <utility>
#include <vector>

namespace ibuki {
namespace {

/// What this process holds.
struct Held {
    std::mutex guard;
    std::vector<FileIdentity> files;
};

Held& held() {
    static Held all;
    return all;
}

[[noreturn]] void refuse(const std::filesystem::path& project) {
    throw InputError("project-locked", {project.string(), {}, {}});
}

} // namespace

bool FileLock::isHeldHere(const FileIdentity& file) {
    const std::lock_guard lock(held().guard);
    return std::find(held().files.begin(), held().files.end(), file) != held().files.end();
}

bool FileLock::isHeld(const std::filesystem::path& project) {
    const auto file = identityOf(project);
    if (!file) return false;
    if (isHeldHere(*file)) return true;
    const int fd = ::open(project.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
    if (fd < 0) return false;
    const bool free = ::flock(fd, LOCK_SH | LOCK_NB) == 0;
    ::close(fd);
    return !free;
}

FileLock::FileLock(const std::filesystem::path& project) {
    for (int attempt = 0; attempt < 8; ++attempt) {
        const auto before = identityOf(project);
        if (before && isHeldHere(*before)) refuse(project);
        fd_ = ::open(project.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
        if (fd_ < 0)
            throw InputError("file-not-writable.lock", {project.string(), {}, {}},
                             {{"reason", std::strerror(errno)}});
        const bool locked = ::flock(fd_, LOCK_EX | LOCK_NB) == 0;
        const auto mine = identityOf(fd_);
        // Whoever replaced the file in between would leave us with a lock on a file that nobody reads.
        if (locked && mine && identityOf(project) == mine) {
            file_ = *mine;
            const std::lock_guard lock(held().guard);
            held().files.push_back(file_);
            return;
        }
        ::close(fd_);
        fd_ = -1;
        // Somebody who only asks holds it for a moment.
        if (!locked) std::this_thread::sleep_for(std::chrono::milliseconds(20));
    }
    refuse(project);
}

FileLock::~FileLock() {
    if (fd_ < 0) return;
    ::close(fd_);
    const std::lock_guard lock(held().guard);
    const auto mine = std::find(held().files.begin(), held().files.end(), file_);
    if (mine != held().files.end()) held().files.erase(mine);
}

FileLock::FileLock(FileLock&& other) noexcept : fd_(std::exchange(other.fd_, -1)), file_(other.file_) {}

FileLock& FileLock::operator=(FileLock&& other) noexcept {
    std::swap(fd_, other.fd_);
    std::swap(file_, other.file_);
    return *this;
}

} // namespace ibuki
