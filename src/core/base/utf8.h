// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Text from outside, checked by RFC 3629: no over-long forms, no surrogates, nothing above U+10FFFF.

#include <cstddef>
#include <string>
#include <string_view>

namespace ibuki {

/// How many bytes from the beginning are well-formed.
std::size_t validUtf8Length(std::string_view text);

inline bool isUtf8(std::string_view text) { return validUtf8Length(text) == text.size(); }

/// Well-formed sequences as they are, every other byte taken as Latin-1.
std::string mendedUtf8(std::string_view bytes);

void appendUtf8(std::string& out, char32_t c);

} // namespace ibuki
