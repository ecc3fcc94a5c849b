// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/lazy.h"
#include "core/domain/mount.h"
#include "core/reduce/reduction.h"

namespace ibuki {

/// The stored outcome of reducing a run, with the settings it was made with. `with` keeps its members
/// together.
struct RunReduction {
    Id<RunReduction> id;
    Id<Run> run;
    Lazy<Reduction> reduction;      ///< read from its stored form when it is asked for
    std::optional<double> hottestC; ///< of it, for whoever looks through all runs
    ReduceSettings settings;
    bool operator==(const RunReduction&) const = default;

    static RunReduction with(Id<RunReduction> id, Id<Run> run, Reduction reduction,
                             const ReduceSettings& settings) {
        const auto hottest = reduction.hottestC;
        return {id, run, std::move(reduction), hottest, settings};
    }
};

} // namespace ibuki
