// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a project is about, in a line: for a list of projects.

#include "core/setup/follow_ups.h"
#include "core/setup/next_step.h"

namespace ibuki {

struct ProjectSummary {
    std::string bench;
    std::string study; ///< the last one that is not closed, else the last; empty without one
    bool isClosed = false;
    NextStep step;
    DueCount wanted;            ///< mounts of all benches that want a look
    std::optional<Instant> due; ///< the first planned mount or later run that has a day
    bool operator==(const ProjectSummary&) const = default;
};

/// now: nothing counts as wanted without it.
ProjectSummary summaryOf(const Document& document, std::optional<Instant> now = {},
                         const WallClock& clock = {});

} // namespace ibuki
