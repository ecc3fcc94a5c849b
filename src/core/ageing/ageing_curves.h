// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A group's change since fresh as it is drawn, on the screen and on paper.

#include "core/ageing/ageing_judgement.h"

namespace ibuki {

struct AgeingCurves {
    struct Dot {
        Id<Mount> mount;
        Id<Run> run;
        std::optional<Instant> at;
        double t = 0; ///< of the clock
        double changeK = 0;
    };
    std::vector<std::vector<Dot>> mounts; ///< change since what the course tells of the mount's own start
    std::vector<double> t;                ///< along the readings
    std::vector<double> changeK;          ///< as fitted
    std::vector<Interval> band;           ///< 95 %
    std::vector<double> aheadT;           ///< behind the last reading, at most twice the span
    std::vector<double> aheadK;
};

/// Without a course by that clock: dots alone, over each mount's first reading.
AgeingCurves ageingCurves(const GroupAgeing& ageing, AgeingClock clock);

} // namespace ibuki
