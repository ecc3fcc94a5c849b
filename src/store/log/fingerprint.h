// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The header of a log as one short word, so that what the user said about its columns is told again.

#include <span>
#include <string>

namespace ibuki {

/// Sixteen hexadecimal digits of the column names, whatever their order, spaces at the ends and case aside.
std::string headerFingerprint(std::span<const std::string> columns);

} // namespace ibuki
