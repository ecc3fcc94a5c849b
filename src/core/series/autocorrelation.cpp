// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/autocorrelation.h"

#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/series/straight_line.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

namespace ibuki {

double autocorrelation(std::span<const double> x, std::size_t lag) {
    if (x.size() <= lag) return 0;
    const double m = mean(x);
    double product = 0;
    double square = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        square += (x[i] - m) * (x[i] - m);
        if (i + lag < x.size()) product += (x[i] - m) * (x[i + lag] - m);
    }
    return square > 0 ? product / square : 0;
}

namespace {

struct IntegratedTime {
    double time = 1;
    std::size_t window = 0;               ///< M
    std::vector<double> correlation{1.0}; ///< r_0 to r_M
};

IntegratedTime integrate(std::span<const double> x) {
    const double m = mean(x);
    std::vector<double> centred(x.begin(), x.end());
    double square = 0;
    for (double& v : centred) {
        v -= m;
        square += v * v;
    }
    IntegratedTime result;
    if (!(square > 0)) return result;
    for (std::size_t lag = 1; lag < x.size(); ++lag) {
        double product = 0;
        for (std::size_t i = 0; i + lag < centred.size(); ++i) product += centred[i] * centred[i + lag];
        result.correlation.push_back(product / square);
        result.time += 2 * result.correlation.back();
        result.window = lag;
        if (static_cast<double>(lag) >= 5 * result.time) break;
    }
    result.time = std::max(1.0, result.time);
    return result;
}

} // namespace

double integratedAutocorrelationTime(std::span<const double> x) { return integrate(x).time; }

namespace {

double dot(const std::vector<double>& a, const std::vector<double>& b) {
    return std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
}

/// By Gram and Schmidt; what hangs on those before it falls out.
void makeOrthonormal(FittedFunctions& functions) {
    FittedFunctions kept;
    for (std::vector<double>& f : functions) {
        const double before = dot(f, f);
        for (const std::vector<double>& u : kept) {
            const double along = dot(f, u);
            for (std::size_t i = 0; i < f.size(); ++i) f[i] -= along * u[i];
        }
        const double left = dot(f, f);
        if (!(left > 1e-12 * before)) continue;
        for (double& v : f) v /= std::sqrt(left);
        kept.push_back(std::move(f));
    }
    functions = std::move(kept);
}

/// What the functions took: of the variance (a), and of the noise at frequency 0 (n l).
struct Taken {
    double variance = 0;
    double slow = 0;
};

Taken takenBy(const FittedFunctions& functions, std::span<const double> correlation) {
    Taken taken;
    for (std::size_t lag = 0; lag < correlation.size(); ++lag) {
        const double sides = lag == 0 ? 1 : 2;
        const auto shift = static_cast<std::ptrdiff_t>(lag);
        for (const std::vector<double>& u : functions) {
            const double c = std::inner_product(u.begin(), u.end() - shift, u.begin() + shift, 0.0);
            taken.variance += sides * correlation[lag] * c;
            taken.slow += sides * c;
        }
    }
    return taken;
}

} // namespace

std::optional<NoiseLevel> noiseLevel(std::span<const double> residuals, FittedFunctions fitted) {
    if (residuals.size() < 8) return std::nullopt;
    const auto n = static_cast<double>(residuals.size());
    double rss = 0;
    for (double r : residuals) rss += r * r;
    if (!(rss > 0)) return std::nullopt;
    makeOrthonormal(fitted);
    const IntegratedTime raw = integrate(residuals);
    const Taken taken = takenBy(fitted, raw.correlation);
    const double variance = std::clamp(taken.variance, static_cast<double>(fitted.size()), n / 2);
    NoiseLevel noise;
    noise.tau = raw.time;
    if (raw.time > 1) noise.tau *= (1 - variance / n) / (1 - std::clamp(taken.slow / n, 0.0, 0.5));
    noise.tau = std::clamp(noise.tau, 1.0, n / 4);
    noise.df = std::max(2.0, n / (2 * static_cast<double>(raw.window) + 1));
    noise.sd = std::sqrt(rss / (n - variance));
    return noise;
}

double meanStandardError(const NoiseLevel& noise, std::size_t n) {
    const auto count = static_cast<double>(n);
    const double shortened = 1 - std::min(0.5, noise.tau > 1 ? noise.tau / (2 * count) : 0.0);
    const double student = studentQuantile(0.975, noise.df);
    return noise.sd * std::sqrt(noise.tau / count * shortened) * student / 1.959963984540054;
}

std::optional<double> meanStandardError(std::span<const double> x) {
    const auto sd = sampleSd(x);
    if (!sd) return std::nullopt;
    return *sd * std::sqrt(integratedAutocorrelationTime(x) / static_cast<double>(x.size()));
}

Interval SlopeFit::interval(double confidence) const {
    return studentInterval(slope, standardError, df, confidence);
}

std::optional<SlopeFit> fitSlope(std::span<const double> t, std::span<const double> x) {
    if (t.size() < 6 || t.size() != x.size()) return std::nullopt;
    const StraightLine line(t, x);
    if (!(line.spread() > 0)) return std::nullopt;
    SlopeFit fit;
    fit.slope = line.slope();
    const std::vector<double> residuals = line.residuals();
    const double r1 = std::clamp(autocorrelation(residuals, 1), 0.0, 0.99);
    fit.effectiveN = static_cast<double>(t.size()) * (1 - r1) / (1 + r1);
    if (fit.effectiveN < 6) return std::nullopt;
    fit.df = fit.effectiveN - 2;
    const double rss = std::inner_product(residuals.begin(), residuals.end(), residuals.begin(), 0.0);
    fit.standardError = std::sqrt(rss / fit.df / line.spread());
    return fit;
}

} // namespace ibuki
