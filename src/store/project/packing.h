// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Columns of a recording as compressed bytes. Numbers: little-endian doubles, their bytes gathered plane by
// plane (first bytes of all, then second bytes, …), then zstd. Words: joined by newlines, then zstd.

#include <span>
#include <string>
#include <vector>

namespace ibuki {

/// Of all words of one column together.
inline constexpr std::size_t mostWordBytes = std::size_t{256} << 20U;

std::string packNumbers(std::span<const double> values);
/// Throws InputError (project-damaged) when the bytes do not hold `count` numbers.
std::vector<double> unpackNumbers(std::string_view bytes, std::size_t count);

std::string packWords(const std::vector<std::string>& words);
std::vector<std::string> unpackWords(std::string_view bytes, std::size_t count);

} // namespace ibuki
