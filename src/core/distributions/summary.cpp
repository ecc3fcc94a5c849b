// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/summary.h"
#include "core/base/nan.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace ibuki {
namespace {}

double mean(std::span<const double> x) {
    if (x.empty()) return nan;
    double sum = 0;
    for (double v : x) sum += v - x.front(); // about the first value: no digits lost to a common offset
    return x.front() + sum / static_cast<double>(x.size());
}

double median(std::span<const double> x) { return quantile(x, 0.5); }

double sumOfSquares(std::span<const double> x) {
    if (x.empty()) return 0;
    const double m = mean(x);
    double squares = 0;
    double residue = 0;
    for (double v : x) {
        squares += (v - m) * (v - m);
        residue += v - m;
    }
    return squares - residue * residue / static_cast<double>(x.size());
}

std::optional<double> sampleSd(std::span<const double> x) {
    if (x.size() < 2) return std::nullopt;
    return std::sqrt(std::max(0.0, sumOfSquares(x)) / static_cast<double>(x.size() - 1));
}

double quantile(std::span<const double> x, double p) {
    if (x.empty()) return nan;
    std::vector<double> sorted(x.begin(), x.end());
    const double h = static_cast<double>(sorted.size() - 1) * p;
    const auto low = static_cast<std::size_t>(h);
    const auto at = sorted.begin() + static_cast<std::ptrdiff_t>(low);
    std::nth_element(sorted.begin(), at, sorted.end());
    if (low + 1 >= sorted.size()) return *at;
    const double below = *at;
    const double above = *std::min_element(at + 1, sorted.end());
    return below + (h - static_cast<double>(low)) * (above - below);
}

double rangeOf(std::span<const double> x) {
    double low = 0;
    double high = 0;
    bool any = false;
    for (double v : x) {
        if (!std::isfinite(v)) continue;
        low = any ? std::min(low, v) : v;
        high = any ? std::max(high, v) : v;
        any = true;
    }
    return high - low;
}

} // namespace ibuki
