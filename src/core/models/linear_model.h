// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Linear model with contrasts: y = Xβ + e, e independent with variance σ²/w. Columns may depend on one
// another (groups and blocks that only partly overlap): a contrast that the rows cannot tell is known as such
// (Searle, Speed & Milliken 1980; docs/methods.md, "Blocks").

#include "core/models/least_squares.h"

#include <span>
#include <vector>

namespace ibuki {

class LinearModel {
public:
    /// design: a row an observation. weights: one a row, > 0; empty: all 1. The least number of rows is one.
    LinearModel(const Columns& design, std::span<const double> y, std::span<const double> weights = {});

    std::size_t rank() const { return rank_; }
    double rss() const { return rss_; } ///< Σ w (y − Xβ)²
    /// rss/df; 0 where nothing but rounding is left.
    double residualVariance(double df) const { return rss_ <= nothingLeft * squares_ ? 0 : rss_ / df; }
    const std::vector<double>& coefficients() const { return coefficients_; } ///< of least norm

    // Of contrasts cᵀβ; they have one entry a column of the design.
    double value(std::span<const double> contrast) const;
    Columns covariance(const Columns& contrasts) const; ///< each with each, × σ²
    /// The parts of contrasts that no row tells about: 0 where a contrast is estimable.
    Columns untold(const Columns& contrasts) const;
    static constexpr double leastUntold = 1e-14; ///< squared length of such a part that is not rounding

private:
    static constexpr double nothingLeft = 1e-26; ///< of the squares of y

    std::size_t rank_ = 0;
    double rss_ = 0;
    double squares_ = 0; ///< Σ w y²
    std::vector<double> coefficients_;
    Columns inverse_{0, 0};  ///< (XᵀWX)⁺
    Columns rowSpace_{0, 0}; ///< orthonormal, columns × rank
};

/// The columns of the design, in their order, that do not follow from earlier ones.
std::vector<std::size_t> independentColumns(const Columns& design);
Columns selected(const Columns& design, std::span<const std::size_t> columns);

/// A⁺ of a symmetric matrix.
Columns pseudoInverse(const Columns& matrix);

} // namespace ibuki
