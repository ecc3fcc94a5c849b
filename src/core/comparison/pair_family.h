// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How large a difference can become by chance when several are looked at together: the critical values and
// adjusted p of one comparison's pairs.

#include "core/comparison/compare.h"
#include "core/distributions/studentized_range.h"
#include "core/models/joint_limit.h"
#include "core/models/least_squares.h"

#include <map>
#include <optional>
#include <span>

namespace ibuki {

class PairFamily {
public:
    /// Each of k groups with each: Student's t for two, else Tukey's studentized range.
    static PairFamily allPairs(int k, double alpha, bool ownSpread = false);
    /// m groups with one reference by Dunnett. correlation: of the differences, m × m.
    static PairFamily againstReference(const Columns& correlation, double alpha);

    Adjustment adjustment() const { return adjustment_; }
    double alpha() const { return alpha_; }
    /// df may be infinite or fractional. Kept once worked out.
    const CriticalValues& critical(double df);
    /// The same to three digits, for many different df: what is planned by it.
    CriticalValues roughCritical(double df);
    /// Of |d|/se = t, two-sided.
    double adjustedP(double t, double df);

private:
    int k_ = 2;
    double alpha_ = 0.05;
    Adjustment adjustment_ = Adjustment::none;
    std::optional<JointLimit> limit_; ///< of Dunnett's comparisons; nothing: all pairs
    std::map<double, CriticalValues> known_;
    std::map<double, StudentizedRangeTable> tables_; ///< of many groups' pairs
};

} // namespace ibuki
