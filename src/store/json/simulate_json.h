// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The bench and protocol files of `ibuki-cli simulate` (docs/file-format.md, "Simulated bench").

#include "core/simulate/simulated_bench.h"

#include <nlohmann/json.hpp>

namespace ibuki {

/// Absent fields keep their defaults. Throws InputError (json-field) for an unknown or ill-typed field.
SimulatedBench benchFromJson(const nlohmann::json& json, const std::string& fileName);
SimulatedProtocol protocolFromJson(const nlohmann::json& json, const std::string& fileName);

/// Reads a JSON file; throws InputError (json-syntax) with the line.
nlohmann::json readJsonFile(const std::string& path);

} // namespace ibuki
