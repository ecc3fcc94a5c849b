// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Mounts that were measured under several loads: every load by itself, each mount's mean over the loads, and
// whether the groups stand otherwise from load to load, by the split-plot analysis with the mount as the
// whole plot (S. Greenhouse, S. Geisser, Psychometrika 24 (1959) 95; docs/methods.md, "Several loads").

#include "core/comparison/compare.h"

namespace ibuki {

struct LoadRun {
    RunValue run;
    Named load;
};

/// Every mount of the group that has the load, complete or not.
struct LoadCell {
    std::size_t load = 0;
    std::size_t group = 0;
    int mounts = 0;
    std::optional<double> mean; ///< nothing where runs at the limit forbid one
    std::optional<Interval> ci; ///< of the comparison under that load
};

/// A pair that is told apart one way under one load and the other way under another.
struct OrderChange {
    Named a;
    Named b;
    Named aBetter; ///< load
    Named bBetter;
};

struct LoadInteraction {
    FTest test;                ///< group × load against load × mount within groups
    std::optional<double> pGg; ///< corrected by Greenhouse and Geisser; with more than two loads
};

struct SeveralLoads {
    std::vector<Named> loads; ///< in order of first appearance, as the groups
    std::vector<Named> groups;
    std::vector<LoadCell> grid;  ///< those that were measured, load by load
    std::vector<Judged> perLoad; ///< beside loads
    Comparison means;            ///< of each complete mount's mean over the loads
    std::optional<LoadInteraction> interaction;
    int completeMounts = 0;
    std::vector<OrderChange> orderChanges;
};

/// Interaction and means over loads are those of mounts that have every load, in groups that no load drove to
/// its limit. Throws InputError when fewer than two groups have such a mount, and as compare() does of their
/// means.
SeveralLoads compareLoads(const std::vector<LoadRun>& runs, const CompareOptions& options);

/// The same of a table; loads: that of each run. reference: name of a group, empty for all pairs.
SeveralLoads compareLoads(const std::vector<TableRun>& runs, const std::vector<std::string>& loads,
                          CompareOptions options = {}, const std::string& reference = {});

} // namespace ibuki
