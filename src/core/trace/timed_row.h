// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace ibuki {

/// What the channels of one source, or of a recording, read at one time.
struct TimedRow {
    double timeS = 0; ///< since the first row, or on the source's clock; not before the row before it
    std::vector<double>
        values; ///< one a channel, canonical units; NaN or missing at the end: nothing was read
};

} // namespace ibuki
