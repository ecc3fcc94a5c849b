// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A file's bytes without a copy: read-only memory map, unmapped on destruction.

#include <filesystem>
#include <string_view>

namespace ibuki {

class MappedFile {
public:
    /// Throws InputError (file-missing, file-unreadable) with the path.
    explicit MappedFile(const std::filesystem::path& path);
    ~MappedFile();
    MappedFile(const MappedFile&) = delete;
    MappedFile& operator=(const MappedFile&) = delete;

    std::string_view bytes() const { return {data_, size_}; }

private:
    const char* data_ = nullptr;
    std::size_t size_ = 0;
};

} // namespace ibuki
