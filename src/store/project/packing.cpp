// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/packing.h"

#include "core/base/input_error.h"

#include <array>
#include <bit>
#include <cstdint>
#include <fmt/format.h>
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

std::string expanded(std::string_view bytes, std::size_t most) {
    const auto size = ZSTD_getFrameContentSize(bytes.data(), bytes.size());
    if (size == ZSTD_CONTENTSIZE_ERROR || size == ZSTD_CONTENTSIZE_UNKNOWN || size > most) refuse();
    std::string out(size, '\0');
    if (ZSTD_decompress(out.data(), out.size(), bytes.data(), bytes.size()) != size) refuse();
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
    const std::string joined = expanded(bytes, std::size_t{1} << 32U);
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
