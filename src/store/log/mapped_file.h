// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A file's bytes without a copy: read-only memory map, unmapped on destruction.

#include <cstdint>
#include <filesystem>
#include <string_view>

namespace ibuki {

/// Which file it was, and in which state: one with the same stamp has not been written since.
struct FileStamp {
    std::uint64_t device = 0;
    std::uint64_t inode = 0;
    std::int64_t bytes = 0;
    std::int64_t changedNs = 0; ///< status change, which no program can set back
    bool operator==(const FileStamp&) const = default;
};

class MappedFile {
public:
    /// Throws InputError (file-missing, file-unreadable) with the path.
    explicit MappedFile(const std::filesystem::path& path);
    ~MappedFile();
    MappedFile(const MappedFile&) = delete;
    MappedFile& operator=(const MappedFile&) = delete;

    FileStamp stamp() const { return stamp_; } ///< when it was opened
    std::string_view bytes() const { return {data_, size_}; }

private:
    FileStamp stamp_;
    const char* data_ = nullptr;
    std::size_t size_ = 0;
};

} // namespace ibuki
