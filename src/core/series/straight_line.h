// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/distributions/interval.h"

#include <span>
#include <vector>

namespace ibuki {

/// Least squares of y over x with one slope, and an intercept of its own for each group of points that is
/// added (one group: the usual line; several: the analysis of covariance with a common slope). Sums are about
/// the groups' means, residuals are taken from the points. Draper & Smith, Applied Regression Analysis, 3rd
/// ed., sections 1.2 to 1.4 and 14.4.
class StraightLine {
public:
    StraightLine() = default;
    StraightLine(std::span<const double> x, std::span<const double> y) { add(x, y); }

    void add(std::span<const double> x, std::span<const double> y); ///< as many of one as of the other

    double spread() const { return xx_; } ///< Σ(x − x̄)² within the groups
    double slope() const;                 ///< 0 where x does not vary
    std::vector<double> residuals() const;
    double rss() const;     ///< their sum of squares
    double df() const;      ///< points less groups less one
    double slopeSe() const; ///< √(rss / df / spread); x must vary, df be above 0
    /// Two-sided Student interval of the slope; as slopeSe.
    Interval slopeInterval(double confidence) const;

private:
    std::vector<double> x_; ///< about their group's mean
    std::vector<double> y_;
    double xx_ = 0;
    double xy_ = 0;
    int groups_ = 0;
};

} // namespace ibuki
