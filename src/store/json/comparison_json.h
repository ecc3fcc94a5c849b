// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a verdict is made of as JSON, with the field names of docs/cli.md. A value that does not exist is
// null.

#include "core/comparison/compare.h"
#include "core/comparison/several_loads.h"
#include "core/comparison/two_factor.h"
#include "core/comparison/value_front.h"
#include "core/series/bench_health.h"
#include "core/series/sweep.h"

#include <nlohmann/json.hpp>

namespace ibuki {

nlohmann::ordered_json toJson(const Comparison& comparison, const std::string& unit = "K");
nlohmann::ordered_json toJson(const TwoFactors& factors);
/// What "loads" holds; the rest of the object is that of the means.
nlohmann::ordered_json toJson(const SeveralLoads& loads);
nlohmann::ordered_json toJson(const Lines& lines, const Responses& responses);
nlohmann::ordered_json toJson(const BenchHealth& health);
nlohmann::ordered_json toJson(const ValueFront& front, const std::vector<ValueRow>& rows);

} // namespace ibuki
