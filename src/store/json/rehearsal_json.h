// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The scenario file of `ibuki-cli rehearse` and what came of it (docs/cli.md, "rehearse").

#include "core/plan/rehearsal.h"

#include <nlohmann/json.hpp>

namespace ibuki {

/// Throws InputError (json-field) for an unknown, ill-typed or missing field.
RehearsalScenario rehearsalFromJson(const nlohmann::json& json, const std::string& fileName);

nlohmann::ordered_json toJson(const Rehearsal& rehearsal, const RehearsalScenario& scenario);

} // namespace ibuki
