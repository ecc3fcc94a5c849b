// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/atomic_file.h"

#include "core/base/input_error.h"
#include "store/file_identity.h"
#include "store/project_file.h"

#include <atomic>
#include <cerrno>
#include <charconv>
#include <csignal>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

namespace ibuki {
namespace {

constexpr std::string_view partPrefix = ".ibuki-part-";

[[noreturn]] void refuse(const std::filesystem::path& path, int error) {
    throw InputError(error == ENOSPC || error == EDQUOT ? "file-not-writable.no-room"
                                                        : "file-not-writable.place",
                     {path.string(), {}, {}}, {{"reason", std::strerror(error)}});
}

std::filesystem::path folderOf(const std::filesystem::path& path) {
    return path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
}

/// A name in the folder that this process has not used yet.
std::filesystem::path partName(const std::filesystem::path& folder) {
    static std::atomic<int> count = 0;
    return folder / fmt::format("{}{}-{}", partPrefix, ::getpid(), ++count);
}

/// Left by a process that is no more: it cannot be finished.
bool isOrphan(const std::filesystem::path& part) {
    const std::string name = part.filename().string();
    if (!name.starts_with(partPrefix)) return false;
    pid_t process = 0;
    const char* begin = name.data() + partPrefix.size();
    if (std::from_chars(begin, name.data() + name.size(), process).ec != std::errc{} || process <= 0)
        return false;
    struct stat info {};
    return ::lstat(part.c_str(), &info) == 0 && S_ISREG(info.st_mode) && info.st_uid == ::geteuid()
           && ::kill(process, 0) != 0 && errno == ESRCH;
}

void removeOrphans(const std::filesystem::path& folder) {
    std::error_code none;
    for (const auto& entry : std::filesystem::directory_iterator(folder, none))
        if (isOrphan(entry.path())) std::filesystem::remove(entry.path(), none);
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
    const int fd = ::open(folderOf(path).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (fd < 0) return;
    ::fsync(fd);
    ::close(fd);
}

/// What the file will be open to: as the one that it replaces.
mode_t modeFor(const std::filesystem::path& path) {
    struct stat info {};
    return ::stat(path.c_str(), &info) == 0 && S_ISREG(info.st_mode) ? info.st_mode & 07777U : 0644U;
}

/// A new file of this name; −1 with errno. A link that stands there is not followed.
int createNew(const std::filesystem::path& name) {
    return ::open(name.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0600);
}

/// Gives the nameless file a name; false with errno.
bool nameIt(int fd, const std::filesystem::path& name) {
    const std::string handle = fmt::format("/proc/self/fd/{}", fd);
    return ::linkat(AT_FDCWD, handle.c_str(), AT_FDCWD, name.c_str(), AT_SYMLINK_FOLLOW) == 0;
}

/// Writes the bytes to a file of that name beside the target.
void writePart(const std::filesystem::path& part, const std::filesystem::path& path, std::string_view bytes) {
    bool named = false;
    int fd = ::open(folderOf(path).c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, 0600);
    if (fd < 0 && (errno == EOPNOTSUPP || errno == EISDIR || errno == EINVAL)) { // an older file system
        fd = createNew(part);
        named = fd >= 0;
    }
    if (fd < 0) refuse(path, errno);
    const bool whole = writeAll(fd, bytes) && ::fchmod(fd, modeFor(path)) == 0 && ::fsync(fd) == 0
                       && (named || nameIt(fd, part));
    const int error = errno;
    ::close(fd);
    if (whole) return;
    if (named) ::unlink(part.c_str());
    refuse(path, error);
}

void renameOver(const std::filesystem::path& part, const std::filesystem::path& path) {
    if (::rename(part.c_str(), path.c_str()) == 0) {
        syncFolder(path);
        return;
    }
    const int error = errno;
    ::unlink(part.c_str());
    refuse(path, error);
}

} // namespace

std::filesystem::path makePartBeside(const std::filesystem::path& path) {
    const auto folder = folderOf(path);
    removeOrphans(folder);
    auto part = partName(folder);
    const int fd = createNew(part);
    if (fd < 0) refuse(path, errno);
    const bool fits = ::fchmod(fd, modeFor(path)) == 0;
    const int error = errno;
    ::close(fd);
    if (!fits) refuse(path, error);
    return part;
}

void putInPlace(const std::filesystem::path& part, const std::filesystem::path& path) {
    const int fd = ::open(part.c_str(), O_RDONLY | O_CLOEXEC);
    const bool synced = fd >= 0 && ::fsync(fd) == 0;
    const int error = errno;
    if (fd >= 0) ::close(fd);
    if (synced) return renameOver(part, path);
    ::unlink(part.c_str());
    refuse(path, error);
}

void refuseInputAsTarget(const std::filesystem::path& target,
                         const std::vector<std::filesystem::path>& inputs) {
    const auto there = identityOf(target);
    for (const auto& input : inputs)
        if (there && identityOf(input) == there)
            throw InputError("target-is-input", {target.string(), {}, {}});
}

void writeFileAtomically(const std::filesystem::path& path, std::string_view bytes) {
    if (isProjectFile(path)) throw InputError("target-is-project", {path.string(), {}, {}});
    const auto part = partName(folderOf(path));
    writePart(part, path, bytes);
    renameOver(part, path);
}

} // namespace ibuki
