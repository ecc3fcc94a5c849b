// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the pages of the verdict draw, as tables: comma, point, units in the head, empty where nothing is
// known.

#include "core/evidence/check_mounts.h"
#include "core/evidence/material_value.h"
#include "core/evidence/power_sweep.h"
#include "core/evidence/setting_sweep.h"
#include "core/evidence/side_responses.h"

#include <string>

namespace ibuki {

std::string mountsCsv(const Comparison& comparison, const std::string& unit); ///< one row a mount
std::string pairsCsv(const Comparison& comparison, const std::string& unit);
std::string factorsCsv(const TwoFactors& factors, const std::string& unit); ///< one row a combination
std::string sweepCsv(const std::vector<SweepPoint>& points, const std::string& xUnit,
                     const std::string& unit);
std::string checksCsv(const BenchHealth& health, const std::string& unit);
std::string responsesCsv(const std::vector<SideComparison>& sides); ///< one row a response and group
std::string valueCsv(const MaterialValue& value);

} // namespace ibuki
