// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where a temperature leaves one course for another: two stretches, each of which settles exponentially or
// stands still, parted where together they explain the readings best (docs/methods.md, "Load edges").

#include "core/reduce/metric.h"

namespace ibuki {

/// A stretch's least-squares course x = a + b e^{−t/τ}, τ the best of a few, or x = a.
struct Course {
    double first = 0; ///< fitted values at its ends
    double last = 0;
    double rss = 0;
    double rise() const { return last - first; }
};

struct SettlingSplit {
    std::size_t at = 0; ///< first sample of the second stretch; both have at least three
    Course before;
    Course after;
    Course whole; ///< without a split
    double rss() const { return before.rss + after.rss; }
};

/// x over `part` of timeS, all of it finite and at least eight samples, with |t| within a day.
SettlingSplit splitSettling(std::span<const double> timeS, std::span<const double> x, Segment part);

} // namespace ibuki
