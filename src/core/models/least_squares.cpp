// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/least_squares.h"

#include "core/models/column_views.h"

namespace ibuki {
namespace {

using Matrix = Eigen::MatrixXd;
using Vector = Eigen::VectorXd;
using ConstMatrix = Eigen::Map<const Matrix>;
using ConstVector = Eigen::Map<const Vector>;

std::vector<double> valuesOf(const Vector& vector) { return {vector.data(), vector.data() + vector.size()}; }

} // namespace

LeastSquares leastSquares(const Columns& design, std::span<const double> y) {
    const ConstMatrix x = viewOf(design);
    const Vector beta = x.colPivHouseholderQr().solve(viewOf(y));
    const Vector left = viewOf(y) - x * beta;
    return {valuesOf(beta), valuesOf(left), left.squaredNorm()};
}

Columns inverseNormal(const Columns& jacobian) {
    const ConstMatrix j = viewOf(jacobian);
    const Matrix normal = j.transpose() * j;
    return columnsOf(normal.completeOrthogonalDecomposition().pseudoInverse());
}

Columns orthonormalBasis(const Columns& design, double threshold) {
    Eigen::ColPivHouseholderQR<Matrix> qr(viewOf(design));
    qr.setThreshold(threshold);
    return columnsOf(qr.householderQ() * Matrix::Identity(index(design.rows()), qr.rank()));
}

std::vector<double> withoutPartIn(const Columns& basis, std::span<const double> y) {
    const ConstMatrix q = viewOf(basis);
    const ConstVector v = viewOf(y);
    return valuesOf(v - q * (q.transpose() * v));
}

double dot(std::span<const double> a, std::span<const double> b) { return viewOf(a).dot(viewOf(b)); }

} // namespace ibuki
