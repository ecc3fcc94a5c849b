// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What sentences of the verdict are made of.

#include "core/comparison/compare.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

/// 1.23 K, 0.0123 K/W: decimals by unit.
std::string amountText(double value, std::string_view unit);
/// +1.2, −0.3, +0.0123: decimals by unit, or as many as asked; without the unit.
std::string signedAmountText(double value, std::string_view unit, std::optional<int> decimals = {});
/// The interval times sign, smaller end first: "1.2 to 3.4 K".
std::string rangeText(const Interval& ci, double sign, std::string_view unit);
/// "a, b and c".
std::string listed(const std::vector<std::string>& texts);
/// " About 2 more mounts of each would settle it."
std::string furtherText(const PairComparison& pair);

} // namespace ibuki
