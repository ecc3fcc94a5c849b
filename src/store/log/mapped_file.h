// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A file's bytes without a copy: read-only memory map, unmapped on destruction.

#include "store/file_identity.h"

#include <cstdint>
#include <filesystem>
#include <string_view>

namespace ibuki {

/// Which file it was, and in which state: one with the same stamp has not been written since.
struct FileStamp {
    FileIdentity file;
    std::int64_t bytes = 0;
    std::int64_t changedNs = 0; ///< status change, which no program can set back
    bool operator==(const FileStamp&) const = default;
};

class MappedFile {
public:
    /// Of a regular file that is no project which this process has open. Throws InputError (file-missing,
    /// file-unreadable) with the path.
    explicit MappedFile(const std::filesystem::path& path);
    ~MappedFile();
    MappedFile(const MappedFile&) = delete;
    MappedFile& operator=(const MappedFile&) = delete;

    /// Throws InputError (file-shrank) when another program cut the file off while it was read. Zeros stood
    /// in the place of what was missing: whoever read them does not use it.
    void requireWhole() const;

    FileStamp stamp() const { return stamp_; } ///< when it was opened
    std::string_view bytes() const { return {data_, size_}; }

private:
    std::filesystem::path path_;
    FileStamp stamp_;
    int guarded_ = -1; ///< place among the guarded maps
    const char* data_ = nullptr;
    std::size_t size_ = 0;
};

} // namespace ibuki
