// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The ladder as a self-contained SVG for reports.

#include "store/paper/ladder_layout.h"

#include "core/domain/material.h"

#include <map>
#include <string>

namespace ibuki {

/// Class of material by GroupSummary::id.
using GroupClasses = std::map<std::int64_t, MaterialClass>;

/// Groups without a class get no mark.
std::string ladderSvg(const Comparison& comparison, const GroupClasses& classes, const std::string& unit,
                      const LadderSize& size = {});

std::string xmlText(std::string_view text); ///< with &, <, >, " escaped

} // namespace ibuki
