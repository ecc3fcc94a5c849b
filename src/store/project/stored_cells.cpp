// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/stored_cells.h"

#include "core/trace/time_axis.h"

#include <cmath>

namespace ibuki {

void requireTimeAxis(const std::vector<double>& timeS) {
    if (timeS.size() > mostSamples)
        throw InputError("project-damaged.count", {}, {{"count", static_cast<std::int64_t>(timeS.size())}});
    for (std::size_t i = 0; i < timeS.size(); ++i)
        if (!std::isfinite(timeS[i]) || std::abs(timeS[i]) > longestRecordingS
            || (i > 0 && timeS[i] < timeS[i - 1]))
            throw InputError("project-damaged.time", {});
}

} // namespace ibuki
