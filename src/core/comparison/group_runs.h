// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Runs gathered by group and mount, as the comparison reads them.

#include "core/comparison/compare.h"

namespace ibuki {

struct MountRuns {
    Named mount;
    Named block;
    double order = 0;
    double covariate = 0;
    std::vector<double> values;
    bool censored = false;
};

struct GroupRuns {
    Named group;
    std::vector<MountRuns> mounts;
};

/// In order of first appearance. mountsKnown: false, every run is a mount of its own. A mount has the block
/// and the order of its first run, and the mean covariate of all.
std::vector<GroupRuns> gather(const std::vector<RunValue>& runs, bool mountsKnown);

GroupSummary summarise(const GroupRuns& runs, bool lowerIsBetter);

} // namespace ibuki
