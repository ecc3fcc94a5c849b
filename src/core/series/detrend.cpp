// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/detrend.h"

#include "core/models/least_squares.h"

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
    const std::size_t parameters = tau ? 3 : 2;
    if (means.size() <= parameters) return residuals;
    Columns design(means.size(), parameters);
    for (std::size_t i = 0; i < means.size(); ++i) {
        const double at = times[i] - times.front();
        design[0][i] = 1;
        design[1][i] = tau ? std::exp(-at / *tau) : at;
        if (tau) design[2][i] = std::exp(-4 * at / *tau);
    }
    residuals.values = leastSquares(design, means).residuals;
    for (std::size_t k = 0; k < parameters; ++k)
        residuals.course.emplace_back(design[k].begin(), design[k].end());
    return residuals;
}

} // namespace ibuki
