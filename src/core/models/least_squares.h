// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Linear least squares by Householder QR with column pivoting (Golub and Van Loan, Matrix
// Computations, 5.4.2). The linear algebra behind it is compiled in this one unit.

#include <span>
#include <vector>

namespace ibuki {

/// A matrix of rows × columns, stored column by column.
class Columns {
public:
    Columns(std::size_t rows, std::size_t columns) : rows_(rows), values_(rows * columns) {}
    std::size_t rows() const { return rows_; }
    std::size_t columns() const { return rows_ ? values_.size() / rows_ : 0; }
    std::span<double> operator[](std::size_t column) {
        return std::span(values_).subspan(column * rows_, rows_);
    }
    std::span<const double> operator[](std::size_t column) const {
        return std::span(values_).subspan(column * rows_, rows_);
    }

private:
    std::size_t rows_;
    std::vector<double> values_; ///< rows × columns
};

struct LeastSquares {
    std::vector<double> coefficients; ///< one a column
    std::vector<double> residuals;    ///< y − design · coefficients, one a row
    double rss = 0;                   ///< their sum of squares
};

/// The coefficients that make the residuals' squares least. y has one value a row of the design; columns that
/// add nothing get 0.
LeastSquares leastSquares(const Columns& design, std::span<const double> y);

/// (JᵀJ)⁻¹, columns × columns, or its pseudo-inverse when columns add nothing.
Columns inverseNormal(const Columns& jacobian);

/// Orthonormal columns that span those of the design; directions weaker than `threshold` of the strongest are
/// left out.
Columns orthonormalBasis(const Columns& design, double threshold);

/// y without its part in the span of orthonormal columns.
std::vector<double> withoutPartIn(const Columns& basis, std::span<const double> y);

double dot(std::span<const double> a, std::span<const double> b);

} // namespace ibuki
