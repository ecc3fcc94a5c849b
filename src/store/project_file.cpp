// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project_file.h"

#include "core/base/input_error.h"
#include "store/file_lock.h"

#include <cerrno>
#include <cstdint>
#include <cstring>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace ibuki {

bool isOpenHere(const std::filesystem::path& path) {
    const auto file = identityOf(path);
    return file && FileLock::isHeldHere(*file);
}

bool isProjectFile(const std::filesystem::path& path) {
    if (isOpenHere(path)) return true;
    const int fd = ::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
    if (fd < 0) return false;
    unsigned char head[72] = {};
    const bool whole = ::read(fd, head, sizeof head) == static_cast<ssize_t>(sizeof head);
    ::close(fd);
    // docs of SQLite, "Database File Format": the application id stands at byte 68, big-endian.
    const auto id = static_cast<std::uint32_t>(head[68]) << 24U | static_cast<std::uint32_t>(head[69]) << 16U
                    | static_cast<std::uint32_t>(head[70]) << 8U | head[71];
    return whole && std::memcmp(head, "SQLite format 3", 16) == 0
           && id == static_cast<std::uint32_t>(projectApplicationId);
}

void refusePlantedBeside(const std::filesystem::path& project) {
    for (const char* suffix : {"-journal", "-wal", "-shm"}) {
        std::filesystem::path beside = project;
        beside += suffix;
        struct stat info {};
        if (::lstat(beside.c_str(), &info) == 0 && !S_ISREG(info.st_mode))
            throw InputError("project-not-one.beside", {project.string(), {}, {}},
                             {{"name", beside.filename().string()}});
    }
}

void requireRegularFile(const std::filesystem::path& project) {
    struct stat info {};
    if (::stat(project.c_str(), &info) != 0) {
        if (errno == ENOENT || errno == ENOTDIR) throw InputError("file-missing", {project.string(), {}, {}});
        throw InputError("file-unreadable", {project.string(), {}, {}}, {{"reason", std::strerror(errno)}});
    }
    if (!S_ISREG(info.st_mode)) throw InputError("project-not-one", {project.string(), {}, {}});
}

} // namespace ibuki
