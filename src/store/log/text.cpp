// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/text.h"

#include "core/base/input_error.h"
#include "core/base/utf8.h"

#include <algorithm>
#include <cstdint>

namespace ibuki {
namespace {

std::string fromUtf16(std::string_view bytes, bool littleEndian) {
    std::string out;
    out.reserve(bytes.size() / 2);
    const auto unit = [&](std::size_t i) {
        const auto a = static_cast<unsigned char>(bytes[i]);
        const auto b = static_cast<unsigned char>(bytes[i + 1]);
        return static_cast<std::uint32_t>(littleEndian ? a | (b << 8) : (a << 8) | b);
    };
    for (std::size_t i = 2; i + 1 < bytes.size(); i += 2) {
        std::uint32_t c = unit(i);
        const auto isLow = [&] { return i + 3 < bytes.size() && (unit(i + 2) & 0xFC00U) == 0xDC00; };
        if (c >= 0xD800 && c < 0xDC00 && isLow()) {
            c = 0x10000 + ((c - 0xD800) << 10) + (unit(i + 2) - 0xDC00);
            i += 2;
        } else if (c >= 0xD800 && c < 0xE000) {
            c = 0xFFFD; // half a pair is no letter
        }
        appendUtf8(out, c);
    }
    return out;
}

} // namespace

DecodedText decodeText(std::string_view bytes, const std::string& fileName) {
    DecodedText text;
    if (bytes.starts_with("\xEF\xBB\xBF")) bytes.remove_prefix(3);
    if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF")) {
        text.owned = fromUtf16(bytes, bytes.front() == '\xFF');
        return text;
    }
    const std::string_view head = bytes.substr(0, 65'536);
    if (head.find('\0') != std::string_view::npos) throw InputError("not-text", {fileName, {}, {}});
    if (isUtf8(bytes))
        text.inPlace = bytes;
    else
        text.owned = mendedUtf8(bytes);
    return text;
}

std::string_view trim(std::string_view text) {
    while (!text.empty() && (text.front() == ' ' || text.front() == '\t')) text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\t' || text.back() == '\r'))
        text.remove_suffix(1);
    return text;
}

std::string_view takeLine(std::string_view& rest) {
    const auto end = rest.find('\n');
    std::string_view line = rest.substr(0, end);
    rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
    if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
    return line;
}

std::optional<std::string_view> takeBlankField(std::string_view& line, char separator) {
    line = trim(line);
    if (line.empty()) return std::nullopt;
    const auto blank = [&](std::size_t i) { return i < line.size() && (line[i] == ' ' || line[i] == '\t'); };
    std::size_t end = 0;
    bool quoted = false;
    for (; end < line.size(); ++end) {
        if (line[end] == '"') quoted = !quoted;
        if (!quoted && blank(end) && (separator == blanks || line[end] == '\t' || blank(end + 1))) break;
    }
    const std::string_view field = line.substr(0, end);
    line.remove_prefix(end);
    return field;
}

std::vector<std::string> splitFields(std::string_view line, char separator) {
    if (isBlankSeparator(separator)) {
        std::vector<std::string> fields;
        while (const auto field = takeBlankField(line, separator)) {
            if (fields.size() == mostFields) break;
            fields.push_back(splitFields(*field, '\0').front()); // without its quotes
        }
        if (fields.empty()) fields.emplace_back();
        return fields;
    }
    std::vector<std::string> fields(1);
    bool quoted = false;
    for (std::size_t i = 0; i < line.size(); ++i) {
        const char c = line[i];
        if (c == '"') {
            if (quoted && i + 1 < line.size() && line[i + 1] == '"') {
                fields.back() += '"';
                ++i;
            } else {
                quoted = !quoted;
            }
        } else if (c == separator && !quoted) {
            if (fields.size() == mostFields) break;
            fields.emplace_back();
        } else {
            fields.back() += c;
        }
    }
    return fields;
}

} // namespace ibuki
