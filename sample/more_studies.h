// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The smaller studies of the demo, each on a bench of its own: two factors, a power sweep, before and after
// on a laptop with scores, check mounts of a bench that moved; mounts that were left alone and read again
// ("checks_h", with what wears them).

#include "core/domain/material.h"
#include "store/project/project.h"

#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>

namespace ibuki {

/// studies: an array; each names bench, study, simulated bench, protocol and mounts.
void addMoreStudies(Project& project, const nlohmann::json& studies,
                    const std::map<std::string, Id<Material>>& materials,
                    const std::filesystem::path& logFolder);

} // namespace ibuki
