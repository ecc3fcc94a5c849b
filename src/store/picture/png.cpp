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

namespace {

/// Pixels of any PNG in the format wanted, with its width and height.
std::vector<std::uint8_t> pixelsOf(std::string_view bytes, const std::string& name, png_uint_32 format,
                                   int& width, int& height) {
    const auto unreadable = [&] { throw InputError("picture-unreadable", {name, {}, {}}); };
    PngImage png;
    if (!png_image_begin_read_from_memory(&png.image, bytes.data(), bytes.size())) unreadable();
    const double pixels = static_cast<double>(png.image.width) * png.image.height;
    if (pixels > mostPixels)
        throw InputError("picture-large", {name, {}, {}},
                         {{"width", static_cast<std::int64_t>(png.image.width)},
                          {"height", static_cast<std::int64_t>(png.image.height)},
                          {"most", mostPixels / 1e6}});
    png.image.format = format;
    width = static_cast<int>(png.image.width);
    height = static_cast<int>(png.image.height);
    std::vector<std::uint8_t> made(PNG_IMAGE_SIZE(png.image));
    const png_color black{0, 0, 0};
    if (made.empty() || !png_image_finish_read(&png.image, &black, made.data(), 0, nullptr)) unreadable();
    return made;
}

} // namespace

GreyPicture greyFromPng(std::string_view bytes, const std::string& name) {
    GreyPicture picture;
    picture.grey = pixelsOf(bytes, name, PNG_FORMAT_GRAY, picture.width, picture.height);
    return picture;
}

RgbPicture rgbFromPng(std::string_view bytes, const std::string& name) {
    RgbPicture picture;
    picture.rgb = pixelsOf(bytes, name, PNG_FORMAT_RGB, picture.width, picture.height);
    return picture;
}

GreyPicture readGreyPng(const std::filesystem::path& path) {
    const MappedFile file(path);
    GreyPicture picture = greyFromPng(file.bytes(), path.string());
    file.requireWhole();
    return picture;
}

namespace {

std::string written(int width, int height, png_uint_32 format, const std::uint8_t* pixels) {
    PngImage png;
    png.image.width = static_cast<png_uint_32>(width);
    png.image.height = static_cast<png_uint_32>(height);
    png.image.format = format;
    png_alloc_size_t size = PNG_IMAGE_PNG_SIZE_MAX(png.image);
    std::string bytes(size, '\0');
    if (!png_image_write_to_memory(&png.image, bytes.data(), &size, 0, pixels, 0, nullptr)) return {};
    bytes.resize(size);
    return bytes;
}

} // namespace

std::string pngBytes(const RgbPicture& picture) {
    return written(picture.width, picture.height, PNG_FORMAT_RGB, picture.rgb.data());
}

std::string pngBytes(const GreyPicture& picture) {
    return written(picture.width, picture.height, PNG_FORMAT_GRAY, picture.grey.data());
}

} // namespace ibuki
