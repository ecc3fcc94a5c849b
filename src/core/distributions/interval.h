// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace ibuki {

/// A two-sided interval; which confidence it has is said where it is made.
struct Interval {
    double lo = 0;
    double hi = 0;

    bool contains(double x) const { return lo <= x && x <= hi; }
    bool within(double limit) const { return -limit < lo && hi < limit; } ///< inside (−limit, +limit)
    bool operator==(const Interval&) const = default;
};

} // namespace ibuki
