// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reductions as JSON with the field names of docs/cli.md. The project stores each field once, and codes and
// fields for the messages of flags (docs/file-format.md). A value that does not exist is null.

#include "core/reduce/reduction.h"

#include <nlohmann/json.hpp>

namespace ibuki {

nlohmann::ordered_json toJson(const Reduction& reduction); ///< with the sentences of its flags
nlohmann::ordered_json storedJson(const Reduction& reduction);

/// Reads back what storedJson wrote. Throws InputError (project-damaged) when a field is missing or of
/// another kind.
Reduction reductionFromJson(const nlohmann::ordered_json& json);

/// Only what differs from the defaults of ReduceSettings, so that old results keep meaning the same.
nlohmann::ordered_json toJson(const ReduceSettings& settings);
ReduceSettings settingsFromJson(const nlohmann::ordered_json& json); ///< throws as above

} // namespace ibuki
