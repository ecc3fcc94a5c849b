// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/picture/png.h"

#include "core/base/input_error.h"
#include "store/log/mapped_file.h"

#include <png.h>

namespace ibuki {
namespace {

/// libpng's picture, freed whatever happens.
struct PngImage {
    png_image image{};
    PngImage() { image.version = PNG_IMAGE_VERSION; }
    ~PngImage() { png_image_free(&image); }
    PngImage(const PngImage&) = delete;
    PngImage& operator=(const PngImage&) = delete;
};

} // namespace

GreyPicture readGreyPng(const std::filesystem::path& path) {
    const MappedFile file(path);
    const auto unreadable = [&] { throw InputError("picture-unreadable", {path.string(), {}, {}}); };
    PngImage png;
    if (!png_image_begin_read_from_memory(&png.image, file.bytes().data(), file.bytes().size())) unreadable();
    const double pixels = static_cast<double>(png.image.width) * png.image.height;
    if (pixels > mostPixels)
        throw InputError("picture-large", {path.string(), {}, {}},
                         {{"width", static_cast<std::int64_t>(png.image.width)},
                          {"height", static_cast<std::int64_t>(png.image.height)},
                          {"most", mostPixels / 1e6}});
    png.image.format = PNG_FORMAT_GRAY;
    GreyPicture picture{static_cast<int>(png.image.width), static_cast<int>(png.image.height), {}};
    picture.grey.resize(PNG_IMAGE_SIZE(png.image));
    const png_color black{0, 0, 0};
    if (picture.grey.empty() || !png_image_finish_read(&png.image, &black, picture.grey.data(), 0, nullptr))
        unreadable();
    file.requireWhole();
    return picture;
}

std::string pngBytes(const RgbPicture& picture) {
    PngImage png;
    png.image.width = static_cast<png_uint_32>(picture.width);
    png.image.height = static_cast<png_uint_32>(picture.height);
    png.image.format = PNG_FORMAT_RGB;
    png_alloc_size_t size = PNG_IMAGE_PNG_SIZE_MAX(png.image);
    std::string bytes(size, '\0');
    if (!png_image_write_to_memory(&png.image, bytes.data(), &size, 0, picture.rgb.data(), 0, nullptr))
        return {};
    bytes.resize(size);
    return bytes;
}

} // namespace ibuki
