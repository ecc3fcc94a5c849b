// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/censored_fit.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <numbers>

namespace ibuki {
namespace {

using Matrix = Eigen::MatrixXd;
using Vector = Eigen::VectorXd;

constexpr int mostSteps = 200;
constexpr double converged = 1e-13; ///< of the step, relative

/// φ(z)/Φ(−z), without loss in the tail.
double hazard(double z) {
    if (z > 30) return z + 1 / (z + 2 / (z + 3 / (z + 4 / z))); // continued fraction
    return std::sqrt(2 / std::numbers::pi) * std::exp(-z * z / 2) / std::erfc(z / std::numbers::sqrt2);
}

/// ln Φ(−z).
double logUpper(double z) {
    if (z > 30) return -z * z / 2 - std::log(hazard(z)) - 0.5 * std::log(2 * std::numbers::pi);
    return std::log(std::erfc(z / std::numbers::sqrt2) / 2);
}

/// In γ = β/σ and h = 1/σ. A value whose group is `none` has mean 0.
constexpr std::size_t none = static_cast<std::size_t>(-1);

struct State {
    Vector gamma;
    double h = 0;
};

struct Derivatives {
    double value = 0;
    Vector gradient; ///< h last
    Matrix hessian;
};

Derivatives derivativesAt(const CensoredSample& sample, const State& state) {
    const auto last = state.gamma.size();
    Derivatives d{0, Vector::Zero(last + 1), Matrix::Zero(last + 1, last + 1)};
    d.value = sample.restValues * std::log(state.h) - state.h * state.h * sample.restSs / 2;
    d.gradient(last) = sample.restValues / state.h - state.h * sample.restSs;
    d.hessian(last, last) = -sample.restValues / (state.h * state.h) - sample.restSs;
    for (std::size_t i = 0; i < sample.y.size(); ++i) {
        const bool grouped = sample.group[i] != none;
        const auto g = grouped ? static_cast<Eigen::Index>(sample.group[i]) : 0;
        const double y = sample.y[i];
        const double z = state.h * y - (grouped ? state.gamma(g) : 0);
        double slope = 0;     // of the value by z
        double curvature = 0; // its second derivative by z
        if (sample.bound[i]) {
            const double r = hazard(z);
            d.value += logUpper(z);
            slope = -r;
            curvature = -r * (r - z);
        } else {
            d.value += std::log(state.h) - z * z / 2;
            slope = -z;
            curvature = -1;
            d.gradient(last) += 1 / state.h;
            d.hessian(last, last) -= 1 / (state.h * state.h);
        }
        d.gradient(last) += slope * y;
        d.hessian(last, last) += curvature * y * y;
        if (!grouped) continue;
        d.gradient(g) -= slope;
        d.hessian(g, g) += curvature;
        d.hessian(g, last) -= curvature * y;
        d.hessian(last, g) -= curvature * y;
    }
    return d;
}

double seenValues(const CensoredSample& sample) {
    return sample.restValues
           + static_cast<double>(std::count(sample.bound.begin(), sample.bound.end(), false));
}

/// Where it is best, from groups' plain means on; the likelihood is without its constant.
std::optional<State> climb(const CensoredSample& sample) {
    State state{Vector::Zero(static_cast<Eigen::Index>(sample.groups)), 0};
    Vector counts = state.gamma;
    for (std::size_t i = 0; i < sample.y.size(); ++i)
        if (sample.group[i] != none) {
            state.gamma(static_cast<Eigen::Index>(sample.group[i])) += sample.y[i];
            counts(static_cast<Eigen::Index>(sample.group[i])) += 1;
        }
    if ((counts.array() == 0).any()) return std::nullopt;
    state.gamma.array() /= counts.array();
    double ss = sample.restSs;
    for (std::size_t i = 0; i < sample.y.size(); ++i) {
        const double mean =
            sample.group[i] == none ? 0 : state.gamma(static_cast<Eigen::Index>(sample.group[i]));
        ss += (sample.y[i] - mean) * (sample.y[i] - mean);
    }
    if (!(ss > 0)) return std::nullopt;
    state.h = std::sqrt((sample.restValues + static_cast<double>(sample.y.size())) / ss);
    state.gamma *= state.h;
    Derivatives now = derivativesAt(sample, state);
    for (int step = 0; step < mostSteps; ++step) {
        const Vector move = now.hessian.ldlt().solve(-now.gradient);
        double share = 1;
        State next;
        Derivatives there;
        do { // concave: halving ends
            next = {state.gamma + share * move.head(state.gamma.size()), state.h + share * move.tail(1)(0)};
            if (next.h > 0) there = derivativesAt(sample, next);
            share /= 2;
        } while ((!(next.h > 0) || !(there.value >= now.value - 1e-12 * std::abs(now.value)))
                 && share > 1e-12);
        if (!(next.h > 0)) return std::nullopt;
        const double moved = (2 * share) * move.norm() / (state.gamma.norm() + state.h);
        state = next;
        now = there;
        if (moved < converged) break;
    }
    return state;
}

/// Every group about one of its own values: an offset costs no digits, and the likelihood stays.
struct Centred {
    CensoredSample sample;
    std::vector<double> origins; ///< one a group
};

Centred centred(CensoredSample sample) {
    std::vector<double> origins(sample.groups);
    for (std::size_t i = sample.y.size(); i-- > 0;)
        if (sample.group[i] != none) origins[sample.group[i]] = sample.y[i];
    for (std::size_t i = 0; i < sample.y.size(); ++i)
        if (sample.group[i] != none) sample.y[i] -= origins[sample.group[i]];
    return {std::move(sample), std::move(origins)};
}

double valueAt(const CensoredSample& sample) {
    const CensoredSample about = centred(sample).sample;
    const auto state = climb(about);
    return state ? derivativesAt(about, *state).value : -1e300;
}

/// With mean(a) − mean(b) = difference, or mean(a) = difference, no parameter of a is left.
CensoredSample held(const CensoredSample& sample, std::size_t a, std::optional<std::size_t> b,
                    double difference) {
    CensoredSample with = sample;
    for (std::size_t i = 0; i < with.y.size(); ++i) {
        if (with.group[i] == a) {
            with.y[i] -= difference;
            with.group[i] = b.value_or(none);
        }
        if (with.group[i] != none && with.group[i] > a) --with.group[i];
    }
    --with.groups;
    return with;
}

} // namespace

std::optional<CensoredFit> fitCensored(const CensoredSample& sample) {
    std::vector<int> seen(sample.groups);
    for (std::size_t i = 0; i < sample.y.size(); ++i)
        if (!sample.bound[i]) ++seen[sample.group[i]];
    if (std::any_of(seen.begin(), seen.end(), [](int count) { return count == 0; })) return std::nullopt;
    const auto [about, origins] = centred(sample);
    const auto state = climb(about);
    if (!state) return std::nullopt;
    const Derivatives there = derivativesAt(about, *state);
    CensoredFit fit;
    fit.sigma = 1 / state->h;
    fit.logLikelihood = there.value - seenValues(sample) * 0.5 * std::log(2 * std::numbers::pi);
    // From (γ, h) to (β, h): β = γ/h, so ∂γ/∂β = h and ∂γ/∂h = β.
    const auto k = state->gamma.size();
    Matrix jacobian = Matrix::Identity(k + 1, k + 1);
    jacobian.topLeftCorner(k, k) *= state->h;
    jacobian.topRightCorner(k, 1) = state->gamma / state->h;
    const Matrix information = -jacobian.transpose() * there.hessian * jacobian;
    const Matrix inverse = information.ldlt().solve(Matrix::Identity(k + 1, k + 1));
    fit.covariance = Columns(sample.groups, sample.groups);
    for (std::size_t i = 0; i < sample.groups; ++i) {
        fit.means.push_back(origins[i] + state->gamma(static_cast<Eigen::Index>(i)) / state->h);
        for (std::size_t j = 0; j < sample.groups; ++j)
            fit.covariance[i][j] = inverse(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
    }
    return fit;
}

double likelihoodRatio(const CensoredSample& sample, const CensoredFit& fit, std::size_t a,
                       std::optional<std::size_t> b, double difference) {
    const double constant = seenValues(sample) * 0.5 * std::log(2 * std::numbers::pi);
    return std::max(0.0, 2 * (fit.logLikelihood + constant - valueAt(held(sample, a, b, difference))));
}

Interval profileInterval(const CensoredSample& sample, const CensoredFit& fit, std::size_t a,
                         std::optional<std::size_t> b, double level) {
    const double centre = fit.means[a] - (b ? fit.means[*b] : 0);
    const auto above = [&](double difference) {
        return likelihoodRatio(sample, fit, a, b, difference) - level;
    };
    const auto limit = [&](double direction) {
        double inside = centre;
        double step = direction * std::sqrt(level) * fit.sigma / 4;
        double outside = centre + step;
        for (int i = 0; i < 200 && above(outside) < 0; ++i) {
            inside = outside;
            step *= 1.5;
            outside += step;
        }
        std::uintmax_t iterations = 80;
        const auto [x, y] = boost::math::tools::toms748_solve(
            above, std::min(inside, outside), std::max(inside, outside),
            [&](double p, double q) { return std::abs(p - q) <= 1e-10 * fit.sigma; }, iterations);
        return (x + y) / 2;
    };
    return {limit(-1), limit(1)};
}

} // namespace ibuki
