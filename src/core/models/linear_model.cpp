// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/linear_model.h"

#include "core/models/column_views.h"

#include <algorithm>

namespace ibuki {
namespace {

using Matrix = Eigen::MatrixXd;
using Vector = Eigen::VectorXd;

constexpr double rankThreshold = 1e-9;

Vector rootsOf(std::span<const double> weights, std::size_t rows) {
    if (weights.empty()) return Vector::Ones(index(rows));
    return viewOf(weights).array().sqrt();
}

} // namespace

LinearModel::LinearModel(const Columns& design, std::span<const double> y, std::span<const double> weights) {
    const Vector root = rootsOf(weights, design.rows());
    const Matrix x = root.asDiagonal() * viewOf(design);
    const Vector target = root.asDiagonal() * viewOf(y);
    Eigen::CompleteOrthogonalDecomposition<Matrix> decomposed;
    decomposed.setThreshold(rankThreshold);
    decomposed.compute(x);
    rank_ = static_cast<std::size_t>(decomposed.rank());
    const Matrix pseudo = decomposed.pseudoInverse(); // X⁺
    const Vector beta = pseudo * target;
    coefficients_.assign(beta.data(), beta.data() + beta.size());
    squares_ = target.squaredNorm();
    rss_ = (target - x * beta).squaredNorm();
    inverse_ = columnsOf(pseudo * pseudo.transpose());
    Eigen::ColPivHouseholderQR<Matrix> rows(x.transpose());
    rows.setThreshold(rankThreshold);
    rowSpace_ = columnsOf(rows.householderQ() * Matrix::Identity(x.cols(), rows.rank()));
}

double LinearModel::value(std::span<const double> contrast) const { return dot(contrast, coefficients_); }

Columns LinearModel::covariance(const Columns& contrasts) const {
    const auto c = viewOf(contrasts);
    return columnsOf(c.transpose() * (viewOf(inverse_) * c));
}

Columns LinearModel::untold(const Columns& contrasts) const {
    const auto c = viewOf(contrasts);
    const auto space = viewOf(rowSpace_);
    return columnsOf(c - space * (space.transpose() * c));
}

std::vector<std::size_t> independentColumns(const Columns& design) {
    std::vector<std::size_t> kept;
    Matrix basis(index(design.rows()), 0);
    for (std::size_t column = 0; column < design.columns(); ++column) {
        const Vector own = viewOf(design[column]);
        Vector left = own;
        for (int pass = 0; pass < 2; ++pass) left -= basis * (basis.transpose() * left); // twice is enough
        if (!(left.norm() > rankThreshold * own.norm())) continue;
        basis.conservativeResize(Eigen::NoChange, basis.cols() + 1);
        basis.col(basis.cols() - 1) = left.normalized();
        kept.push_back(column);
    }
    return kept;
}

Columns selected(const Columns& design, std::span<const std::size_t> columns) {
    Columns some(design.rows(), columns.size());
    for (std::size_t i = 0; i < columns.size(); ++i)
        std::copy(design[columns[i]].begin(), design[columns[i]].end(), some[i].begin());
    return some;
}

Columns pseudoInverse(const Columns& matrix) {
    Eigen::CompleteOrthogonalDecomposition<Matrix> decomposed;
    decomposed.setThreshold(rankThreshold);
    decomposed.compute(viewOf(matrix));
    return columnsOf(decomposed.pseudoInverse());
}

} // namespace ibuki
