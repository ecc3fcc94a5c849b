// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/picture/photograph_file.h"

#include "core/base/input_error.h"
#include "core/look/mats.h"
#include "store/log/mapped_file.h"
#include "store/picture/png.h"

#include <algorithm>
#include <memory>
#include <opencv2/imgproc.hpp>
#include <turbojpeg.h>

namespace ibuki {
namespace {

constexpr int keptQuality = 92;

class Bytes {
public:
    explicit Bytes(std::string_view bytes) : bytes_(bytes) {}
    bool has(std::size_t at, std::size_t count) const {
        return at <= bytes_.size() && count <= bytes_.size() - at;
    }
    unsigned at(std::size_t i) const { return static_cast<unsigned char>(bytes_[i]); }
    std::int64_t two(std::size_t i) const { return static_cast<std::int64_t>(at(i) << 8U | at(i + 1)); }
    std::int64_t four(std::size_t i) const { return two(i) << 16 | two(i + 2); }
    std::size_t size() const { return bytes_.size(); }
    bool startsWith(std::string_view head) const { return bytes_.substr(0, head.size()) == head; }
    std::size_t find(std::string_view what, std::size_t from) const { return bytes_.find(what, from); }

private:
    std::string_view bytes_;
};

[[noreturn]] void refuse(const char* code, const std::string& name) {
    throw InputError(code, {name, {}, {}});
}

/// ISO/IEC 15948: the signature, then IHDR; IEND ends it.
PictureHead pngHead(const Bytes& bytes, const std::string& name) {
    if (!bytes.has(0, 33) || bytes.find("IHDR", 12) != 12) refuse("picture-unreadable", name);
    if (bytes.find("IEND", 33) == std::string_view::npos) refuse("picture-unreadable.cut", name);
    return {false, bytes.four(16), bytes.four(20), 1};
}

/// How a camera was held (JEITA CP-3451, tag 0x112 of the first directory), 1 to 8; 1 where it does not say.
int heldAs(const Bytes& bytes, std::size_t begin, std::size_t end) {
    if (end - begin < 14 || bytes.find("Exif", begin) != begin) return 1;
    const std::size_t tiff = begin + 6;
    const bool little = bytes.at(tiff) == 'I';
    const auto number = [&](std::size_t at, std::size_t count) {
        std::size_t value = 0;
        for (std::size_t i = 0; i < count; ++i)
            value = value << 8U | bytes.at(tiff + at + (little ? count - 1 - i : i));
        return value;
    };
    const std::size_t size = end - tiff;
    const std::size_t directory = number(4, 4);
    if (directory > size || size - directory < 2) return 1;
    const std::size_t entries = number(directory, 2);
    for (std::size_t i = 0; i < entries; ++i) {
        const std::size_t entry = directory + 2 + 12 * i;
        if (entry > size || size - entry < 12) return 1;
        if (number(entry, 2) != 0x112) continue;
        const std::size_t held = number(entry + 8, 2);
        return held >= 1 && held <= 8 ? static_cast<int>(held) : 1;
    }
    return 1;
}

/// ITU-T T.81, B.1 and B.2: markers with their lengths up to the frame header, which tells the size; then to
/// the end of the image, so that half a file is told as that.
PictureHead jpegHead(const Bytes& bytes, const std::string& name) {
    PictureHead head{true, 0, 0, 1};
    std::size_t at = 2;
    while (bytes.has(at, 4)) {
        if (bytes.at(at) != 0xFF) refuse("picture-unreadable", name);
        const unsigned marker = bytes.at(at + 1);
        if (marker == 0xFF) { // filling
            ++at;
            continue;
        }
        const auto length = static_cast<std::size_t>(bytes.two(at + 2));
        if (length < 2) refuse("picture-unreadable", name);
        const bool frame =
            marker >= 0xC0 && marker <= 0xCF && marker != 0xC4 && marker != 0xC8 && marker != 0xCC;
        if (frame && head.width == 0) {
            if (!bytes.has(at, 9)) break;
            head.height = bytes.two(at + 5);
            head.width = bytes.two(at + 7);
        }
        if (marker == 0xE1 && bytes.has(at, 2 + length))
            head.held = std::max(head.held, heldAs(bytes, at + 4, at + 2 + length));
        if (marker == 0xDA) {
            if (head.width == 0) refuse("picture-unreadable", name);
            if (bytes.find("\xFF\xD9", at + length) == std::string_view::npos) break;
            return head;
        }
        at += 2 + length;
    }
    refuse("picture-unreadable.cut", name);
}

} // namespace

PictureHead pictureHead(std::string_view from, const std::string& name) {
    const Bytes bytes(from);
    PictureHead head;
    if (bytes.startsWith("\x89PNG\r\n\x1A\n"))
        head = pngHead(bytes, name);
    else if (bytes.startsWith("\xFF\xD8\xFF"))
        head = jpegHead(bytes, name);
    else
        refuse("picture-unreadable", name);
    if (head.width <= 0 || head.height <= 0) refuse("picture-unreadable", name);
    if (static_cast<double>(head.width) * static_cast<double>(head.height) > mostPixels)
        throw InputError("picture-large", {name, {}, {}},
                         {{"width", head.width}, {"height", head.height}, {"most", mostPixels / 1e6}});
    return head;
}

namespace {

struct CloseJpeg {
    void operator()(void* handle) const { tjDestroy(handle); }
};
using Jpeg = std::unique_ptr<void, CloseJpeg>;

RgbPicture fromJpeg(std::string_view bytes, const PictureHead& head, const std::string& name) {
    const Jpeg reader(tjInitDecompress());
    RgbPicture photograph{static_cast<int>(head.width), static_cast<int>(head.height), {}};
    photograph.rgb.resize(static_cast<std::size_t>(head.width) * static_cast<std::size_t>(head.height) * 3);
    const auto* from = reinterpret_cast<const unsigned char*>(bytes.data());
    int width = 0, height = 0, sampling = 0, colours = 0;
    const auto size = static_cast<unsigned long>(bytes.size());
    const bool read =
        reader && tjDecompressHeader3(reader.get(), from, size, &width, &height, &sampling, &colours) == 0
        && width == photograph.width && height == photograph.height
        && (tjDecompress2(reader.get(), from, size, photograph.rgb.data(), width, 0, height, TJPF_RGB,
                          TJFLAG_ACCURATEDCT)
                == 0
            || tjGetErrorCode(reader.get()) == TJERR_WARNING);
    if (!read) refuse("picture-unreadable", name);
    return photograph;
}

/// Turned so that it stands as the camera was held.
RgbPicture upright(RgbPicture photograph, int held) {
    if (held <= 1) return photograph;
    cv::Mat seen = viewOf(photograph), turned = seen;
    if (held >= 5) cv::transpose(seen, turned);
    // After the transposition what is left is a mirroring: 5 none, 6 sideways, 7 both, 8 upside down.
    constexpr std::array<int, 9> mirror{9, 9, 1, -1, 0, 9, 1, -1, 0};
    const int way = mirror[static_cast<std::size_t>(held)];
    if (way != 9) cv::flip(turned, turned, way);
    return rgbOf(turned);
}

} // namespace

RgbPicture photographFrom(std::string_view bytes, const std::string& name) {
    const PictureHead head = pictureHead(bytes, name);
    return head.jpeg ? upright(fromJpeg(bytes, head, name), head.held) : rgbFromPng(bytes, name);
}

RgbPicture readPhotograph(const std::filesystem::path& path) {
    const MappedFile file(path);
    RgbPicture photograph = photographFrom(file.bytes(), path.string());
    file.requireWhole();
    return photograph;
}

std::string keptPhotograph(const RgbPicture& photograph, int longestSide) {
    const double scale =
        std::min(1.0, static_cast<double>(longestSide) / std::max(photograph.width, photograph.height));
    cv::Mat kept = viewOf(photograph);
    if (scale < 1) cv::resize(viewOf(photograph), kept, {}, scale, scale, cv::INTER_AREA);
    const Jpeg writer(tjInitCompress());
    unsigned char* bytes = nullptr;
    unsigned long size = 0;
    const bool written = writer
                         && tjCompress2(writer.get(), kept.data, kept.cols, 0, kept.rows, TJPF_RGB, &bytes,
                                        &size, TJSAMP_444, keptQuality, TJFLAG_ACCURATEDCT)
                                == 0;
    std::string made;
    if (written) made.assign(reinterpret_cast<const char*>(bytes), size);
    tjFree(bytes);
    return made;
}

} // namespace ibuki
