// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/file_identity.h"

#include <sys/stat.h>

namespace ibuki {

std::optional<FileIdentity> identityOf(const std::filesystem::path& path) {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) return std::nullopt;
    return FileIdentity{info.st_dev, info.st_ino};
}

std::optional<FileIdentity> identityOf(int descriptor) {
    struct stat info {};
    if (::fstat(descriptor, &info) != 0) return std::nullopt;
    return FileIdentity{info.st_dev, info.st_ino};
}

} // namespace ibuki
