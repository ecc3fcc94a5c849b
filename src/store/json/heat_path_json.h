// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The stack file of `ibuki-cli heatpath` and what is told of it (docs/cli.md, "heatpath").

#include "core/physics/conduction_field.h"
#include "core/physics/heat_path.h"

#include <nlohmann/json.hpp>

namespace ibuki {

/// Throws InputError (json-field, heat-path-field, heat-path) for an unknown, ill-typed or missing field and
/// for layers that do not alternate.
HeatPath heatPathFromJson(const nlohmann::json& json, const std::string& fileName);

/// field: nullptr where it was not asked for.
nlohmann::ordered_json toJson(const HeatPath& path, const HeatPathSteps& steps, const ConductionField* field);

} // namespace ibuki
