// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How groups of mounts change, with the field names of docs/cli.md.

#include "core/stats/drift_threshold.h"

#include <nlohmann/json.hpp>
#include <string>

namespace ibuki {

/// One group. threshold: where one was asked for.
nlohmann::ordered_json driftJson(const std::string& name, const DriftCourse& course,
                                 const std::optional<DriftTime>& threshold);

} // namespace ibuki
