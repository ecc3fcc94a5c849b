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

double integratedAutocorrelationTime(std::span<const double> x) {
    double time = 1;
    for (std::size_t lag = 1; lag < x.size(); ++lag) {
        time += 2 * autocorrelation(x, lag);
        if (static_cast<double>(lag) >= 5 * time) break;
    }
    return std::max(1.0, time);
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
