// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// PNG pictures as rasters, by libpng. A picture from outside is looked at before it is decoded: how large it
// says it is decides whether it is read at all.

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

namespace ibuki {

inline constexpr double mostPixels = 64e6;

struct GreyPicture {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> grey; ///< row by row from the top
};

struct RgbPicture {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> rgb; ///< three bytes a pixel, row by row from the top
};

/// Grey levels of any PNG, transparency over black. Throws InputError (file-unreadable, picture-unreadable,
/// picture-large) naming the file.
GreyPicture readGreyPng(const std::filesystem::path& path);

std::string pngBytes(const RgbPicture& picture);

} // namespace ibuki
