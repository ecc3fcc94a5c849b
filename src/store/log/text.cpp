// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/text.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <cstdint>

namespace ibuki {
namespace {

void appendUtf8(std::string& out, std::uint32_t c) {
    if (c < 0x80) {
        out += static_cast<char>(c);
    } else if (c < 0x800) {
        out += static_cast<char>(0xC0 | (c >> 6));
        out += static_cast<char>(0x80 | (c & 0x3F));
    } else if (c < 0x10000) {
        out += static_cast<char>(0xE0 | (c >> 12));
        out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
        out += static_cast<char>(0x80 | (c & 0x3F));
    } else {
        out += static_cast<char>(0xF0 | (c >> 18));
        out += static_cast<char>(0x80 | ((c >> 12) & 0x3F));
        out += static_cast<char>(0x80 | ((c >> 6) & 0x3F));
        out += static_cast<char>(0x80 | (c & 0x3F));
    }
}

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
        if (c >= 0xD800 && c < 0xDC00 && i + 3 < bytes.size()) {
            c = 0x10000 + ((c - 0xD800) << 10) + ((unit(i + 2) - 0xDC00) & 0x3FF);
            i += 2;
        }
        appendUtf8(out, c);
    }
    return out;
}

/// isSample: the bytes go on; a sequence may be cut off at their end.
bool isUtf8(std::string_view bytes, bool isSample) {
    std::size_t i = 0;
    while (i < bytes.size()) {
        const auto c = static_cast<unsigned char>(bytes[i]);
        const std::size_t more = c < 0x80         ? 0
                                 : (c >> 5) == 6  ? 1
                                 : (c >> 4) == 14 ? 2
                                 : (c >> 3) == 30 ? 3
                                                  : 9;
        if (more == 9) return false;
        if (more > 0 && i + more >= bytes.size()) return isSample;
        for (std::size_t k = 1; k <= more; ++k)
            if ((static_cast<unsigned char>(bytes[i + k]) >> 6) != 2) return false;
        i += more + 1;
    }
    return true;
}

} // namespace

DecodedText decodeText(std::string_view bytes, const std::string& fileName) {
    DecodedText text;
    if (bytes.starts_with("\xEF\xBB\xBF")) {
        text.inPlace = bytes.substr(3);
        return text;
    }
    if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF")) {
        text.owned = fromUtf16(bytes, bytes.front() == '\xFF');
        return text;
    }
    const std::string_view head = bytes.substr(0, 65'536);
    if (head.find('\0') != std::string_view::npos) throw InputError("not-text", {fileName, {}, {}});
    if (isUtf8(head, bytes.size() > head.size())) {
        text.inPlace = bytes;
        return text;
    }
    text.owned.reserve(bytes.size() + bytes.size() / 16);
    for (char c : bytes) appendUtf8(text.owned, static_cast<unsigned char>(c));
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
        while (const auto field = takeBlankField(line, separator))
            fields.push_back(splitFields(*field, '\0').front()); // without its quotes
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
            fields.emplace_back();
        } else {
            fields.back() += c;
        }
    }
    return fields;
}

} // namespace ibuki
