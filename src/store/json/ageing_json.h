// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How groups of mounts change, with the field names of docs/cli.md.

#include "core/series/ageing_threshold.h"

#include <nlohmann/json.hpp>
#include <string>

namespace ibuki {

/// One group. threshold: where one was asked for.
nlohmann::ordered_json ageingJson(const std::string& name, const AgeingCourse& course,
                                  const std::optional<AgeingTime>& threshold);

} // namespace ibuki
