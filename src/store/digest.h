// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>

namespace ibuki {

/// Lower-case hexadecimal SHA-256 (FIPS 180-4): what tells files apart.
std::string sha256(std::string_view bytes);

} // namespace ibuki
