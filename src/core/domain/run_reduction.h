// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/domain/mount.h"
#include "core/reduce/reduction.h"

namespace ibuki {

/// The stored outcome of reducing a run, with the settings it was made with.
struct RunReduction {
    Id<RunReduction> id;
    Id<Run> run;
    Reduction reduction;
    ReduceSettings settings;
    bool operator==(const RunReduction&) const = default;
};

} // namespace ibuki
