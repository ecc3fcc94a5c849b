// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/nested_model.h"

#include "core/distributions/distributions.h"
#include "core/models/linear_model.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <functional>
#include <numbers>

namespace ibuki {
namespace {

using Matrix = Eigen::MatrixXd;
using Vector = Eigen::VectorXd;

constexpr double leastLogTheta = -14;
constexpr double mostLogTheta = 18;
constexpr int gridPoints = 64; ///< the profile may have two valleys

/// What every trial θ shares.
class Likelihood {
public:
    Likelihood(std::span<const MountRunsSummary> mounts, const Columns& design)
        : x_(static_cast<Eigen::Index>(design.rows()), static_cast<Eigen::Index>(design.columns())),
          mean_(x_.rows()),
          n_(x_.rows()) {
        for (std::size_t c = 0; c < design.columns(); ++c)
            for (std::size_t r = 0; r < design.rows(); ++r)
                x_(static_cast<Eigen::Index>(r), static_cast<Eigen::Index>(c)) = design[c][r];
        for (std::size_t j = 0; j < mounts.size(); ++j) {
            const auto row = static_cast<Eigen::Index>(j);
            mean_(row) = mounts[j].mean - mounts.front().mean; // an offset costs no digits
            n_(row) = mounts[j].runs;
            within_ += mounts[j].ss;
        }
        df_ = n_.sum() - static_cast<double>(x_.cols());
    }

    double df() const { return df_; } ///< N − p
    double withinSs() const { return within_; }

    struct At {
        double rss = 0;      ///< Σ w e² + SSW
        double logs = 0;     ///< Σ ln(1 + nθ) + ln|XᵀWX|
        double gradient = 0; ///< of −2ℓ_R by θ, σ_e² profiled out
    };

    At at(double theta) const {
        const Vector w = n_.array() / (1 + n_.array() * theta);
        const Matrix weighted = w.asDiagonal() * x_;
        const Eigen::LDLT<Matrix> normal(x_.transpose() * weighted);
        const Vector left = mean_ - x_ * normal.solve(weighted.transpose() * mean_);
        At found;
        found.rss = within_ + left.dot(w.cwiseProduct(left));
        found.logs = (1 + n_.array() * theta).log().sum() + normal.vectorD().array().abs().log().sum();
        const Matrix inner = weighted.transpose() * weighted;
        found.gradient =
            -df_ * left.cwiseAbs2().dot(w.cwiseAbs2()) / found.rss + w.sum() - normal.solve(inner).trace();
        return found;
    }

    double criterion(double theta) const {
        const At found = at(theta);
        return df_ * (1 + std::log(2 * std::numbers::pi * found.rss / df_)) + found.logs;
    }

    /// −2ℓ_R at both variances; between may be 0.
    double criterion(double between, double within) const {
        const At found = at(between / within);
        return df_ * std::log(2 * std::numbers::pi * within) + found.rss / within + found.logs;
    }

private:
    Matrix x_;
    Vector mean_;
    Vector n_;
    double within_ = 0;
    double df_ = 0;
};

/// The θ of the lowest point: best of a grid, then the root of the gradient beside it; 0 where that is lower.
double bestTheta(const Likelihood& likelihood) {
    const double step = (mostLogTheta - leastLogTheta) / (gridPoints - 1);
    double best = leastLogTheta;
    double lowest = likelihood.criterion(std::exp(best));
    for (int i = 1; i < gridPoints; ++i)
        if (const double here = likelihood.criterion(std::exp(leastLogTheta + step * i)); here < lowest) {
            lowest = here;
            best = leastLogTheta + step * i;
        }
    if (likelihood.criterion(0) <= lowest) return 0;
    const auto slope = [&](double logTheta) { return likelihood.at(std::exp(logTheta)).gradient; };
    double lo = best - step;
    double hi = best + step;
    if (!(slope(lo) < 0 && slope(hi) > 0)) return std::exp(best); // at the end of the grid
    std::uintmax_t iterations = 60;
    std::tie(lo, hi) = boost::math::tools::toms748_solve(
        slope, lo, hi, [](double a, double b) { return b - a <= 1e-13 * std::max(1.0, std::abs(a)); },
        iterations);
    return std::exp((lo + hi) / 2);
}

} // namespace

std::optional<NestedFit> fitNested(std::span<const MountRunsSummary> mounts, const Columns& design) {
    if (std::none_of(mounts.begin(), mounts.end(), [](const auto& mount) { return mount.runs > 1; })
        || mounts.size() <= design.columns())
        return std::nullopt;
    const Likelihood likelihood(mounts, design);
    NestedFit fit;
    if (likelihood.withinSs() > 0) {
        const double theta = bestTheta(likelihood);
        fit.within = likelihood.at(theta).rss / likelihood.df();
        fit.between = theta * fit.within;
        fit.criterion = likelihood.criterion(theta);
        fit.atBound = theta == 0;
    } else { // runs of a mount repeat each other exactly: mounts are all there is
        std::vector<double> means;
        for (const MountRunsSummary& mount : mounts) means.push_back(mount.mean - mounts.front().mean);
        fit.between = leastSquares(design, means).rss / static_cast<double>(mounts.size() - design.columns());
        fit.atBound = !(fit.between > 0);
    }
    for (const MountRunsSummary& mount : mounts)
        fit.meanVariances.push_back(fit.between + fit.within / mount.runs);
    return fit;
}

} // namespace ibuki
