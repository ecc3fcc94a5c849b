// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a verdict is made of as JSON, with the field names of docs/cli.md. A value that does not exist is
// null.

#include "core/stats/bench_health.h"
#include "core/stats/compare.h"
#include "core/stats/sweep.h"
#include "core/stats/two_factor.h"
#include "core/stats/value_front.h"

#include <nlohmann/json.hpp>

namespace ibuki {

nlohmann::ordered_json toJson(const Comparison& comparison, const std::string& unit = "K");
nlohmann::ordered_json toJson(const TwoFactors& factors);
nlohmann::ordered_json toJson(const Lines& lines, const Responses& responses);
nlohmann::ordered_json toJson(const BenchHealth& health);
nlohmann::ordered_json toJson(const ValueFront& front, const std::vector<ValueRow>& rows);

} // namespace ibuki
