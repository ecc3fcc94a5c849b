// SPDX-License-Identifier: GPL-3.0-or-later
// Columns and spans as Eigen reads them, for the sources of this room only: its headers know no Eigen.
#pragma once

#include "core/models/least_squares.h"

#include <Eigen/Dense>
#include <algorithm>
#include <span>

namespace ibuki {

inline Eigen::Index index(std::size_t n) { return static_cast<Eigen::Index>(n); }

inline Eigen::Map<const Eigen::MatrixXd> viewOf(const Columns& columns) {
    return {columns.columns() ? columns[0].data() : nullptr, index(columns.rows()), index(columns.columns())};
}

inline Eigen::Map<const Eigen::VectorXd> viewOf(std::span<const double> values) {
    return {values.data(), index(values.size())};
}

inline Columns columnsOf(const Eigen::MatrixXd& matrix) {
    Columns columns(static_cast<std::size_t>(matrix.rows()), static_cast<std::size_t>(matrix.cols()));
    if (columns.columns()) std::copy_n(matrix.data(), matrix.size(), columns[0].data());
    return columns;
}

} // namespace ibuki
