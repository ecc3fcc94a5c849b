// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// PNG pictures as rasters, by libpng. A picture from outside is looked at before it is decoded: how large it
// says it is decides whether it is read at all.

#include "core/look/picture.h"

#include <filesystem>
#include <string>
#include <string_view>

namespace ibuki {

inline constexpr double mostPixels = 64e6;

/// Grey levels of any PNG, transparency over black. Throws InputError (file-unreadable, picture-unreadable,
/// picture-large) naming the file.
GreyPicture readGreyPng(const std::filesystem::path& path);

std::string pngBytes(const RgbPicture& picture);
std::string pngBytes(const GreyPicture& picture);
/// As readGreyPng; of bytes that came from `name`.
GreyPicture greyFromPng(std::string_view bytes, const std::string& name);
RgbPicture rgbFromPng(std::string_view bytes, const std::string& name);

} // namespace ibuki
