// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/detrend.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr std::size_t mostBlocks = 2'000;

/// Means of whole blocks of finite samples.
void gather(std::span<const double> t, std::span<const double> x, std::size_t block,
            std::vector<double>& times, std::vector<double>& means) {
    double sumT = 0;
    double sumX = 0;
    std::size_t count = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        if (!std::isfinite(x[i])) continue;
        sumT += t[i];
        sumX += x[i];
        if (++count < block) continue;
        times.push_back(sumT / static_cast<double>(count));
        means.push_back(sumX / static_cast<double>(count));
        sumT = sumX = 0;
        count = 0;
    }
}

} // namespace

Residuals detrended(std::span<const double> t, std::span<const double> x, std::optional<double> tau) {
    Residuals residuals;
    residuals.block = std::max<std::size_t>(1, x.size() / mostBlocks);
    std::vector<double> times;
    std::vector<double> means;
    gather(t, x, residuals.block, times, means);
    const Eigen::Index parameters = tau ? 3 : 2;
    const auto n = static_cast<Eigen::Index>(means.size());
    if (n <= parameters) return residuals;
    Eigen::MatrixXd design(n, parameters);
    for (Eigen::Index i = 0; i < n; ++i) {
        const double at = times[static_cast<std::size_t>(i)] - times.front();
        design(i, 0) = 1;
        design(i, 1) = tau ? std::exp(-at / *tau) : at;
        if (tau) design(i, 2) = std::exp(-4 * at / *tau);
    }
    const Eigen::Map<const Eigen::VectorXd> y(means.data(), n);
    const Eigen::VectorXd left = y - design * design.colPivHouseholderQr().solve(y);
    residuals.values.assign(left.data(), left.data() + n);
    for (Eigen::Index k = 0; k < parameters; ++k)
        residuals.course.emplace_back(design.col(k).data(), design.col(k).data() + n);
    return residuals;
}

} // namespace ibuki
