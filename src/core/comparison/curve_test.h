// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Whether two groups of curves differ anywhere, and from which point on: the largest |t| along the curves,
// held against its distribution when whole curves are dealt to the groups anew (max-statistic permutation;
// Westfall & Young 1993). Tests point by point would find something somewhere.

#include <cstddef>
#include <optional>
#include <vector>

namespace ibuki {

struct CurveTest {
    double p = 1;
    double leastP = 1; ///< what p can reach with so many curves; above 1 − confidence nothing can be found
    std::optional<std::size_t> firstApart; ///< first point that stands out, all of them looked at
    std::vector<double> t;                 ///< pooled, a − b, of each point
};

/// Rows are curves of equal length. Up to 20,000 ways to deal them are all gone through, else 9,999 are drawn
/// with a fixed seed. Both groups have at least two curves, else p and leastP stay at 1.
CurveTest compareCurves(const std::vector<std::vector<double>>& a, const std::vector<std::vector<double>>& b,
                        double confidence);

} // namespace ibuki
