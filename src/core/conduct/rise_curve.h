// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How a mount rose over the room from the start of its load on: what a later mount is held against while it
// rises.

#include "core/domain/mount.h"
#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

struct RisePoint {
    double timeS = 0; ///< since the load began
    double riseK = 0; ///< mean over the step around it
    bool operator==(const RisePoint&) const = default;
};

struct RiseCurve {
    std::vector<RisePoint> points;
    /// Between its points; nothing before the first or behind the last.
    std::optional<double> at(double timeS) const;
};

/// Of one load of a log by the metric; means over 10 s, of a load of more than two hours over 20 s and so on.
/// Empty where the log lacks the metric's channel or a room.
RiseCurve riseCurve(const Trace& trace, const LoadReduction& load, Metric metric);

/// A mount made earlier under the same load.
struct EarlierRise {
    Id<Mount> mount;
    std::string name;
    bool rejected = false;
    bool sameLevel = false; ///< as the mount that is recorded
    RiseCurve curve;
};
using EarlierRises = std::shared_ptr<const std::vector<EarlierRise>>; ///< null: none; drawn and watched by

} // namespace ibuki
