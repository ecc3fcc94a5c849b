// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/atomic_file.h"

#include "core/base/input_error.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <unistd.h>

namespace ibuki {
namespace {

[[noreturn]] void refuse(const std::filesystem::path& path, int error) {
    throw InputError(error == ENOSPC ? "file-not-writable.no-room" : "file-not-writable.place",
                     {path.string(), {}, {}}, {{"reason", std::strerror(error)}});
}

bool writeAll(int fd, std::string_view bytes) {
    while (!bytes.empty()) {
        const ssize_t n = ::write(fd, bytes.data(), bytes.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return false;
        bytes.remove_prefix(static_cast<std::size_t>(n));
    }
    return true;
}

/// The name is on the disk only when its folder is. A folder that cannot be synced is no reason to fail: the
/// file is there and whole.
void syncFolder(const std::filesystem::path& path) {
    const auto folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
    const int fd = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (fd < 0) return;
    ::fsync(fd);
    ::close(fd);
}

} // namespace

std::filesystem::path temporaryBeside(const std::filesystem::path& path) {
    std::filesystem::path name = path;
    name += fmt::format(".part-{}", ::getpid());
    return name;
}

void putInPlace(const std::filesystem::path& temporary, const std::filesystem::path& path) {
    const int fd = ::open(temporary.c_str(), O_RDONLY | O_CLOEXEC);
    const bool synced = fd >= 0 && ::fsync(fd) == 0;
    int error = errno;
    if (fd >= 0) ::close(fd);
    if (synced && ::rename(temporary.c_str(), path.c_str()) == 0) {
        syncFolder(path);
        return;
    }
    if (synced) error = errno;
    ::unlink(temporary.c_str());
    refuse(path, error);
}

void writeFileAtomically(const std::filesystem::path& path, std::string_view bytes) {
    const auto temporary = temporaryBeside(path);
    const int fd = ::open(temporary.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (fd < 0) refuse(path, errno);
    const bool written = writeAll(fd, bytes);
    const int error = errno;
    ::close(fd);
    if (!written) {
        ::unlink(temporary.c_str());
        refuse(path, error);
    }
    putInPlace(temporary, path);
}

} // namespace ibuki
