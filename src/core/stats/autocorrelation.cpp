// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/autocorrelation.h"

#include "core/stats/summary.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
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
    std::size_t window = 0; ///< M
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
        result.time += 2 * product / square;
        result.window = lag;
        if (static_cast<double>(lag) >= 5 * result.time) break;
    }
    result.time = std::max(1.0, result.time);
    return result;
}

} // namespace

double integratedAutocorrelationTime(std::span<const double> x) { return integrate(x).time; }

std::optional<NoiseLevel> noiseLevel(std::span<const double> residuals, int parameters) {
    if (residuals.size() < 8) return std::nullopt;
    const auto n = static_cast<double>(residuals.size());
    double rss = 0;
    for (double r : residuals) rss += r * r;
    if (!(rss > 0)) return std::nullopt;
    const IntegratedTime raw = integrate(residuals);
    NoiseLevel noise;
    noise.tau = raw.time;
    if (raw.time > 1) // every fitted parameter takes some of the slow noise away
        noise.tau *= 1 + parameters * (2 * static_cast<double>(raw.window) + 1) / n;
    noise.tau = std::min(noise.tau, n / 4);
    noise.df = std::max(2.0, n / std::max(1.0, static_cast<double>(raw.window)) - parameters);
    noise.sd = std::sqrt(rss / std::max(n / 2, n - parameters * noise.tau));
    return noise;
}

double meanStandardError(const NoiseLevel& noise, std::size_t n) {
    const auto count = static_cast<double>(n);
    const double shortened = 1 - std::min(0.5, noise.tau > 1 ? noise.tau / (2 * count) : 0.0);
    const double student = boost::math::quantile(boost::math::students_t(noise.df), 0.975);
    return noise.sd * std::sqrt(noise.tau / count * shortened) * student / 1.959963984540054;
}

std::optional<double> meanStandardError(std::span<const double> x) {
    const auto sd = sampleSd(x);
    if (!sd) return std::nullopt;
    return *sd * std::sqrt(integratedAutocorrelationTime(x) / static_cast<double>(x.size()));
}

Interval SlopeFit::interval(double confidence) const {
    const boost::math::students_t distribution(df);
    const double half = boost::math::quantile(distribution, 0.5 + confidence / 2) * standardError;
    return {slope - half, slope + half};
}

std::optional<SlopeFit> fitSlope(std::span<const double> t, std::span<const double> x) {
    if (t.size() < 6 || t.size() != x.size()) return std::nullopt;
    const double meanT = mean(t);
    const double meanX = mean(x);
    double tt = 0;
    double tx = 0;
    for (std::size_t i = 0; i < t.size(); ++i) {
        tt += (t[i] - meanT) * (t[i] - meanT);
        tx += (t[i] - meanT) * (x[i] - meanX);
    }
    if (!(tt > 0)) return std::nullopt;
    SlopeFit fit;
    fit.slope = tx / tt;
    std::vector<double> residuals(t.size());
    double squares = 0;
    for (std::size_t i = 0; i < t.size(); ++i) {
        residuals[i] = x[i] - meanX - fit.slope * (t[i] - meanT);
        squares += residuals[i] * residuals[i];
    }
    const double r1 = std::clamp(autocorrelation(residuals, 1), 0.0, 0.99);
    fit.effectiveN = static_cast<double>(t.size()) * (1 - r1) / (1 + r1);
    if (fit.effectiveN < 6) return std::nullopt;
    fit.df = fit.effectiveN - 2;
    fit.standardError = std::sqrt(squares / fit.df / tt);
    return fit;
}

} // namespace ibuki
