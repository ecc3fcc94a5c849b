// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/packing.h"

#include "core/base/input_error.h"
#include "core/trace/time_axis.h"

#include <array>
#include <bit>
#include <cstdint>
#include <memory>
#include <zstd.h>

namespace ibuki {
namespace {

static_assert(std::endian::native == std::endian::little, "the file format is little-endian");

std::string compressed(std::string_view raw) {
    std::string out(ZSTD_compressBound(raw.size()), '\0');
    const std::size_t size = ZSTD_compress(out.data(), out.size(), raw.data(), raw.size(), 3);
    if (ZSTD_isError(size) != 0) throw std::bad_alloc(); // only for want of memory: the bound is ZSTD's own
    out.resize(size);
    return out;
}

[[noreturn]] void refuse() { throw InputError("project-damaged.packing", {}); }

/// What the bytes expand to, block by block: the size that a frame claims is not trusted.
std::string expanded(std::string_view bytes, std::size_t most) {
    const std::unique_ptr<ZSTD_DCtx, decltype(&ZSTD_freeDCtx)> context(ZSTD_createDCtx(), &ZSTD_freeDCtx);
    if (!context) throw std::bad_alloc();
    std::string out;
    std::string block(ZSTD_DStreamOutSize(), '\0');
    ZSTD_inBuffer in{bytes.data(), bytes.size(), 0};
    for (std::size_t left = 1; left != 0;) {
        ZSTD_outBuffer piece{block.data(), block.size(), 0};
        left = ZSTD_decompressStream(context.get(), &piece, &in);
        if (ZSTD_isError(left) != 0 || out.size() + piece.pos > most) refuse();
        if (piece.pos == 0 && in.pos == in.size && left != 0) refuse(); // cut off
        out.append(block, 0, piece.pos);
    }
    if (in.pos != in.size) refuse();
    return out;
}

} // namespace

std::string packNumbers(std::span<const double> values) {
    std::string planes(values.size() * sizeof(double), '\0');
    for (std::size_t i = 0; i < values.size(); ++i) {
        const auto bytes = std::bit_cast<std::array<char, sizeof(double)>>(values[i]);
        for (std::size_t k = 0; k < sizeof(double); ++k) planes[k * values.size() + i] = bytes[k];
    }
    return compressed(planes);
}

std::vector<double> unpackNumbers(std::string_view bytes, std::size_t count) {
    if (count > mostSamples) refuse();
    const std::string planes = expanded(bytes, count * sizeof(double));
    if (planes.size() != count * sizeof(double)) refuse();
    std::vector<double> values(count);
    for (std::size_t i = 0; i < count; ++i) {
        std::array<char, sizeof(double)> value{};
        for (std::size_t k = 0; k < sizeof(double); ++k) value[k] = planes[k * count + i];
        values[i] = std::bit_cast<double>(value);
    }
    return values;
}

std::string packWords(const std::vector<std::string>& words) {
    std::string joined;
    for (const std::string& word : words) joined += word + '\n';
    return compressed(joined);
}

std::vector<std::string> unpackWords(std::string_view bytes, std::size_t count) {
    const std::string joined = expanded(bytes, mostWordBytes);
    std::vector<std::string> words;
    std::size_t begin = 0;
    while (begin < joined.size()) {
        const std::size_t end = joined.find('\n', begin);
        words.push_back(joined.substr(begin, end - begin));
        if (end == std::string::npos) break;
        begin = end + 1;
    }
    if (words.size() != count) refuse();
    return words;
}

} // namespace ibuki
