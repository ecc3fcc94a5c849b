// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Photographs from outside, by libpng and libjpeg-turbo (OpenCV's own reader brings 120 libraries with it and
// 150 ms to every start). A picture is looked at before it is decoded: PNG and JPEG only, whole, and no
// larger than the memory bears. What is kept is written anew from the pixels: nothing that a camera or a
// telephone wrote beside them (place, device, time, preview) comes along.

#include "core/look/picture.h"

#include <filesystem>
#include <string>
#include <string_view>

namespace ibuki {

struct PictureHead {
    bool jpeg = false; ///< else PNG
    std::int64_t width = 0;
    std::int64_t height = 0;
    int held = 1; ///< how the camera was held, 1 to 8 (Exif)
};

/// What the picture says of itself. Throws InputError (picture-unreadable, picture-large) naming `name`.
PictureHead pictureHead(std::string_view bytes, const std::string& name);

/// Upright, as its camera says. Throws as pictureHead does.
RgbPicture photographFrom(std::string_view bytes, const std::string& name);

/// Throws InputError (file-missing, file-unreadable, file-shrank) too.
RgbPicture readPhotograph(const std::filesystem::path& path);

inline constexpr int typicalKeptSide = 2000;

/// Bytes to keep: JPEG of the pixels alone, its longer side at most so many pixels.
std::string keptPhotograph(const RgbPicture& photograph, int longestSide = typicalKeptSide);

} // namespace ibuki
