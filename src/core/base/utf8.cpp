// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/utf8.h"

#include <cstdint>
#include <cstring>

namespace ibuki {
namespace {

unsigned char at(std::string_view text, std::size_t i) {
    return i < text.size() ? static_cast<unsigned char>(text[i]) : 0;
}

/// Bytes of the well-formed sequence at i; 0 when there is none (RFC 3629, section 4).
std::size_t sequenceAt(std::string_view text, std::size_t i) {
    const auto goesOn = [&](std::size_t k) { return (at(text, i + k) & 0xC0U) == 0x80; };
    const auto second = [&](unsigned least, unsigned most) {
        return at(text, i + 1) >= least && at(text, i + 1) <= most;
    };
    const unsigned char c = at(text, i);
    if (c < 0x80) return 1;
    if (c >= 0xC2 && c <= 0xDF) return goesOn(1) ? 2 : 0;
    if (c >= 0xE0 && c <= 0xEF) {
        const bool fits = second(c == 0xE0 ? 0xA0 : 0x80, c == 0xED ? 0x9F : 0xBF);
        return fits && goesOn(2) ? 3 : 0;
    }
    if (c >= 0xF0 && c <= 0xF4) {
        const bool fits = second(c == 0xF0 ? 0x90 : 0x80, c == 0xF4 ? 0x8F : 0xBF);
        return fits && goesOn(2) && goesOn(3) ? 4 : 0;
    }
    return 0;
}

} // namespace

std::size_t validUtf8Length(std::string_view text) {
    std::size_t i = 0;
    while (i < text.size()) {
        std::uint64_t eight = 0;
        if (i + 8 <= text.size()) {
            std::memcpy(&eight, text.data() + i, 8);
            if ((eight & 0x8080808080808080U) == 0) { // most text is plain ASCII
                i += 8;
                continue;
            }
        }
        const std::size_t length = sequenceAt(text, i);
        if (length == 0) return i;
        i += length;
    }
    return i;
}

void appendUtf8(std::string& out, char32_t c) {
    const auto add = [&](char32_t byte) { out += static_cast<char>(static_cast<unsigned char>(byte)); };
    if (c < 0x80) {
        add(c);
    } else if (c < 0x800) {
        add(0xC0 | (c >> 6U));
        add(0x80 | (c & 0x3FU));
    } else if (c < 0x10000) {
        add(0xE0 | (c >> 12U));
        add(0x80 | ((c >> 6U) & 0x3FU));
        add(0x80 | (c & 0x3FU));
    } else {
        add(0xF0 | (c >> 18U));
        add(0x80 | ((c >> 12U) & 0x3FU));
        add(0x80 | ((c >> 6U) & 0x3FU));
        add(0x80 | (c & 0x3FU));
    }
}

std::string mendedUtf8(std::string_view bytes) {
    std::string out;
    out.reserve(bytes.size() + bytes.size() / 16);
    while (!bytes.empty()) {
        const std::size_t good = validUtf8Length(bytes);
        out.append(bytes.substr(0, good));
        bytes.remove_prefix(good);
        if (bytes.empty()) break;
        appendUtf8(out, static_cast<unsigned char>(bytes.front()));
        bytes.remove_prefix(1);
    }
    return out;
}

} // namespace ibuki
