// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Values that may not exist, as null.

#include "core/distributions/interval.h"

#include <nlohmann/json.hpp>
#include <optional>

namespace ibuki {

template <class T> nlohmann::ordered_json orNull(const std::optional<T>& value) {
    return value ? nlohmann::ordered_json(*value) : nlohmann::ordered_json(nullptr);
}
inline nlohmann::ordered_json orNull(const std::optional<Interval>& interval) {
    return interval ? nlohmann::ordered_json::array({interval->lo, interval->hi})
                    : nlohmann::ordered_json(nullptr);
}

} // namespace ibuki
