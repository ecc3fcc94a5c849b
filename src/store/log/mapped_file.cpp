// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/mapped_file.h"

#include "core/base/input_error.h"
#include "store/log/map_guard.h"
#include "store/project_file.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/mman.h>
#include <sys/stat.h>
#include <unistd.h>

namespace ibuki {
namespace {

struct Descriptor {
    int fd;
    ~Descriptor() {
        if (fd >= 0) ::close(fd);
    }
};

[[noreturn]] void refuse(const std::filesystem::path& path, int error) {
    if (error == ENOENT) throw InputError("file-missing", {path.string(), {}, {}});
    throw InputError("file-unreadable", {path.string(), {}, {}}, {{"reason", std::strerror(error)}});
}

} // namespace

MappedFile::MappedFile(const std::filesystem::path& path) : path_(path) {
    if (isOpenHere(path)) throw InputError("file-unreadable.project", {path.string(), {}, {}});
    const Descriptor file{::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC)}; // a pipe does not wait
    if (file.fd < 0) refuse(path, errno);
    struct stat info {};
    if (::fstat(file.fd, &info) != 0) refuse(path, errno);
    if (S_ISDIR(info.st_mode)) refuse(path, EISDIR);
    if (!S_ISREG(info.st_mode)) throw InputError("file-unreadable.special", {path.string(), {}, {}});
    size_ = static_cast<std::size_t>(info.st_size);
    stamp_ = {{info.st_dev, info.st_ino},
              info.st_size,
              info.st_ctim.tv_sec * std::int64_t{1'000'000'000} + info.st_ctim.tv_nsec};
    if (size_ == 0) return;
    void* address = ::mmap(nullptr, size_, PROT_READ, MAP_PRIVATE, file.fd, 0);
    if (address == MAP_FAILED) refuse(path, errno);
    ::madvise(address, size_, MADV_SEQUENTIAL);
    data_ = static_cast<const char*>(address);
    guarded_ = guardMap(data_, size_);
}

MappedFile::~MappedFile() {
    if (guarded_ >= 0) releaseMap(guarded_);
    if (data_) ::munmap(const_cast<char*>(data_), size_);
}

void MappedFile::requireWhole() const {
    if (guarded_ >= 0 && mapWasCut(guarded_)) throw InputError("file-shrank", {path_.string(), {}, {}});
}

} // namespace ibuki
