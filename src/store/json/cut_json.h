// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The job and the plan of `ibuki-cli cut` (docs/cli.md).

#include "core/shelf/cut.h"

#include <nlohmann/json.hpp>

namespace ibuki {

/// Throws InputError (json-field) for an unknown, missing or ill-typed field.
CutJob cutJobFromJson(const nlohmann::json& json, const std::string& fileName);
nlohmann::ordered_json toJson(const CutPlan& plan, const CutJob& job);

} // namespace ibuki
