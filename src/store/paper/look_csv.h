// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the pages of Peel show, as tables for others. Units stand in the head.

#include "core/inspect/joint_coverage.h"

#include <string>

namespace ibuki {

/// One row a figure, then one a bare region.
std::string lookCsv(const CoverageFigures& figures);

struct LookRow {
    std::string mount;
    std::string material;
    double covered = 0;
    std::array<double, 4> corners{};
    std::optional<double> deltaK;
};
/// One row a mount that was looked at.
std::string looksCsv(const std::vector<LookRow>& rows);

} // namespace ibuki
