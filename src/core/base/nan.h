// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <limits>

namespace ibuki {

/// A sample that is missing; optional figures are std::optional.
inline constexpr double nan = std::numeric_limits<double>::quiet_NaN();

} // namespace ibuki
