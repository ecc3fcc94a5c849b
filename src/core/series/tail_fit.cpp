// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/tail_fit.h"

#include "core/distributions/distributions.h"
#include "core/models/least_squares.h"
#include "core/series/autocorrelation.h"

#include <algorithm>
#include <array>
#include <boost/math/tools/minima.hpp>
#include <cmath>
#include <functional>
#include <vector>

namespace ibuki {
namespace {

struct Linear {
    double asymptote = 0;
    double amplitude = 0;
    double rss = 0;
};

/// The data with what every trial τ shares.
class Projection {
public:
    Projection(std::span<const double> t, std::span<const double> x) : t_(t), x_(x), decay_(t.size()) {}

    Linear solve(double tau) {
        decayAt(tau);
        Columns design(t_.size(), 2);
        std::fill(design[0].begin(), design[0].end(), 1.0);
        std::transform(decay_.begin(), decay_.end(), design[1].begin(), std::negate<>());
        const LeastSquares fit = leastSquares(design, x_);
        return {fit.coefficients[0], fit.coefficients[1], fit.rss};
    }

    const std::vector<double>& decay() const { return decay_; }

private:
    void decayAt(double tau) {
        for (std::size_t i = 0; i < t_.size(); ++i) decay_[i] = std::exp(-(t_[i] - t_.front()) / tau);
    }

    std::span<const double> t_;
    std::span<const double> x_;
    std::vector<double> decay_;
};

/// So many values of log τ, evenly spaced: a coarse grid first, since profiles can have several minima.
struct LogGrid {
    double lo = 0;
    double hi = 0;
    int points = 2;

    double at(int i) const { return lo + i * (hi - lo) / (points - 1); }
    /// Of the values at its points; f is of τ. Brent about the best point: log τ and the value there.
    template <class Value, class F> std::pair<double, double> minimum(Value&& value, F&& f) const {
        int best = 0;
        double bestValue = value(0);
        for (int i = 1; i < points; ++i)
            if (const double here = value(i); here < bestValue) {
                bestValue = here;
                best = i;
            }
        return boost::math::tools::brent_find_minima([&](double u) { return f(std::exp(u)); },
                                                     at(std::max(0, best - 1)),
                                                     at(std::min(points - 1, best + 1)), 22);
    }
};

/// The fit with the asymptote held at around + offset: one parameter for each τ, A = Σ e (x_∞ − x) / Σ e².
/// The sums of the coarse grid serve every offset.
class HeldAsymptote {
public:
    HeldAsymptote(std::span<const double> t, std::span<const double> x, double around, const LogGrid& taus)
        : t_(t), taus_(taus) {
        for (const double value : x) {
            off_.push_back(around - value);
            sum_ += off_.back();
            squares_ += off_.back() * off_.back();
        }
        for (int i = 0; i < taus.points; ++i) grid_.push_back(sumsAt(std::exp(taus.at(i))));
    }

    /// Whether some τ brings RSS down to the threshold.
    bool reaches(double threshold, double offset) const {
        const auto ofGrid = [&](int i) { return rss(grid_[static_cast<std::size_t>(i)], offset); };
        for (int i = 0; i < taus_.points; ++i)
            if (ofGrid(i) <= threshold) return true;
        return taus_.minimum(ofGrid, [&](double tau) { return rss(sumsAt(tau), offset); }).second
               <= threshold;
    }

private:
    struct Sums {
        double e = 0;
        double ee = 0;
        double eOff = 0;
    };

    Sums sumsAt(double tau) const {
        Sums sums;
        for (std::size_t i = 0; i < t_.size(); ++i) {
            const double e = std::exp(-(t_[i] - t_.front()) / tau);
            sums.e += e;
            sums.ee += e * e;
            sums.eOff += e * off_[i];
        }
        return sums;
    }
    double rss(const Sums& sums, double offset) const {
        const double total =
            squares_ + 2 * offset * sum_ + static_cast<double>(off_.size()) * offset * offset;
        const double along = sums.eOff + offset * sums.e;
        return sums.ee > 0 ? total - along * along / sums.ee : total;
    }

    std::span<const double> t_;
    std::vector<double> off_; ///< around − x
    double sum_ = 0;
    double squares_ = 0;
    LogGrid taus_;
    std::vector<Sums> grid_; ///< at its points
};

/// Limits of {x_∞ : min_τ RSS ≤ threshold} as offsets, walked outwards in growing steps and then halved.
double profileLimit(const HeldAsymptote& held, double step, double threshold) {
    double inner = 0;
    double outer = step;
    for (int i = 0; i < 30 && held.reaches(threshold, outer); ++i) {
        inner = outer;
        step *= 1.6;
        outer += step;
    }
    for (int i = 0; i < 24; ++i) {
        const double middle = 0.5 * (inner + outer);
        (held.reaches(threshold, middle) ? inner : outer) = middle;
    }
    return 0.5 * (inner + outer);
}

/// studentDf: of the interval's quantile; fewer than n − 3 where residuals are correlated.
std::optional<TailFit> fitWith(std::span<const double> t, std::span<const double> x, double confidence,
                               double varianceInflation, bool withInterval,
                               std::optional<double> studentDf = {}) {
    const std::size_t n = t.size();
    if (n < 6 || x.size() != n || !(t.back() > t.front())) return std::nullopt;
    Projection projection(t, x);
    const double spanT = t.back() - t.front();
    const double logLo = std::log(spanT / static_cast<double>(n - 1));
    const double logHi = std::log(10 * spanT);
    const LogGrid taus{logLo, logHi, 48};
    const auto rssAt = [&](double tau) { return projection.solve(tau).rss; };
    const double logTau = taus.minimum([&](int i) { return rssAt(std::exp(taus.at(i))); }, rssAt).first;

    TailFit fit;
    fit.tau = std::exp(logTau);
    const Linear linear = projection.solve(fit.tau);
    fit.asymptote = linear.asymptote;
    fit.amplitude = linear.amplitude;
    fit.rss = linear.rss;
    fit.df = static_cast<double>(n) - 3;

    // Covariance s² (JᵀJ)⁻¹ with columns 1, −e, −A e (t−t₀)/τ².
    Columns jacobian(n, 3);
    for (std::size_t i = 0; i < n; ++i) {
        const double e = projection.decay()[i];
        jacobian[0][i] = 1;
        jacobian[1][i] = -e;
        jacobian[2][i] = -fit.amplitude * e * (t[i] - t.front()) / (fit.tau * fit.tau);
    }
    const double s2 = varianceInflation * fit.rss / fit.df;
    const Columns inverse = inverseNormal(jacobian);
    const double eEnd = std::exp(-spanT / fit.tau);
    const std::array<double, 3> gradient{0, eEnd, fit.amplitude * eEnd * spanT / (fit.tau * fit.tau)};
    double variance = 0; // gᵀ (JᵀJ)⁻¹ g
    for (std::size_t i = 0; i < 3; ++i)
        for (std::size_t k = 0; k < 3; ++k) variance += gradient[i] * inverse[k][i] * gradient[k];
    fit.remaining = fit.amplitude * eEnd;
    fit.remainingStandardError = std::sqrt(std::max(0.0, s2 * variance));

    const double student = studentQuantile(0.5 + confidence / 2, studentDf.value_or(fit.df));
    const double margin = 1e-3 * (logHi - logLo);
    const double amplitudeError = std::sqrt(std::max(0.0, s2 * inverse[1][1]));
    fit.identified = logTau > logLo + margin && logTau < logHi - margin
                     && std::abs(fit.amplitude) > 3 * amplitudeError && fit.tau < spanT;
    fit.asymptoteInterval = {fit.asymptote, fit.asymptote};
    if (!withInterval || !fit.identified || !(fit.rss > 0)) return fit;
    // The held asymptote moves τ, but not far: a factor of eight to either side of the best one.
    const double near = std::log(8.0);
    const double lo = std::max(logLo, logTau - near);
    const double hi = std::min(logHi, logTau + near);
    const double threshold = fit.rss * (1 + varianceInflation * student * student / fit.df);
    const double step = std::max(student * std::sqrt(std::max(0.0, s2 * inverse[0][0])), 1e-9) / 4;
    const HeldAsymptote held(t, x, fit.asymptote, {lo, hi, 16});
    fit.asymptoteInterval = {fit.asymptote + profileLimit(held, -step, threshold),
                             fit.asymptote + profileLimit(held, step, threshold)};
    return fit;
}

} // namespace

std::optional<TailFit> fitTail(std::span<const double> t, std::span<const double> x, double confidence,
                               double varianceInflation) {
    return fitWith(t, x, confidence, varianceInflation, true);
}

std::optional<TailFit> fitCorrelatedTail(std::span<const double> t, std::span<const double> x,
                                         double confidence) {
    const auto plain = fitWith(t, x, confidence, 1.0, false);
    if (!plain) return plain;
    std::vector<double> residuals;
    FittedFunctions fitted(3); // of the asymptote, the amplitude and, near the solution, τ
    for (std::size_t i = 0; i < t.size(); ++i) {
        const double since = (t[i] - t.front()) / plain->tau;
        residuals.push_back(x[i] - plain->asymptote + plain->amplitude * std::exp(-since));
        fitted[0].push_back(1);
        fitted[1].push_back(std::exp(-since));
        fitted[2].push_back(since * std::exp(-since));
    }
    const auto noise = noiseLevel(residuals, std::move(fitted));
    if (!noise) return fitTail(t, x, confidence);
    // RSS / (n − 3) is too small where few residuals are independent.
    const double inflation = noise->tau * noise->sd * noise->sd * plain->df / plain->rss;
    return fitWith(t, x, confidence, inflation, true, std::min(plain->df, std::max(2.0, noise->df)));
}

} // namespace ibuki
