// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// JSON from outside, before it is made into values: how deep and how wide it may be. Deeper or wider than
// this is nothing that anybody wrote, and would cost memory or time out of proportion.

#include <nlohmann/json.hpp>
#include <optional>
#include <string_view>

namespace ibuki {

inline constexpr int deepestJson = 64;
inline constexpr long mostJsonKeys = 20'000; ///< of one object

/// Well-formed, with numbers that can be, and within the limits.
bool isSoundJson(std::string_view text);

/// The value of sound JSON, else nothing. Text that is plainly within the limits is read once only.
std::optional<nlohmann::ordered_json> soundJson(std::string_view text);

} // namespace ibuki
