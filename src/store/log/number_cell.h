// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Cells that are not bare numbers but mean one: "61.0 °C", "1,623.0", "yes".

#include "core/trace/trace.h"

#include <optional>
#include <string_view>

namespace ibuki {

struct LooseNumber {
    double value = 0;
    Unit unit = Unit::none; ///< written in the cell
};

/// A number with its unit behind it, or with thousands set apart (by a space, an apostrophe, or the sign
/// that is not the decimal one). Nothing for words for "nothing" ("n/a", "--", "NaN") and other text.
std::optional<LooseNumber> looseNumber(std::string_view field, char decimal);

/// A cell of the channel in its canonical unit, NaN for what is no number.
double channelValue(std::string_view field, const Channel& channel, char decimal);

/// "yes", "on", "true", "active" → 1, their opposites → 0, in English, German and Spanish, and 是/否.
std::optional<double> flagValue(std::string_view field);

} // namespace ibuki
