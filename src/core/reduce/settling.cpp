// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/settling.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

constexpr std::array<double, 7> tausS{4, 10, 25, 60, 150, 400, 1'600}; ///< fast die to slow loop

/// Sums of a stretch for the regression of x on e^{−t/τ}; each sample is added in O(1).
struct Sums {
    double n = 0;
    double x = 0;
    double xx = 0;
    double e = 0;
    double ee = 0;
    double ex = 0;

    void add(double value, double decay) {
        n += 1;
        x += value;
        xx += value * value;
        e += decay;
        ee += decay * decay;
        ex += decay * value;
    }
    double spread() const { return ee - e * e / n; }
    double slope() const {
        // A decay that is over leaves nothing but rounding.
        return spread() > 1e-9 * ee ? (ex - e * x / n) / spread() : 0.0;
    }
    double rss() const { return std::max(0.0, xx - x * x / n - slope() * slope() * spread()); }
    double at(double decay) const { return (x + slope() * (n * decay - e)) / n; }
};

/// The least cost of every stretch that begins at 0, or of every one that ends at the end.
struct Costs {
    std::vector<double> rss;
    std::vector<std::size_t> tau; ///< index of the best
};

} // namespace

SettlingSplit splitSettling(std::span<const double> timeS, std::span<const double> x, Segment part) {
    constexpr std::size_t least = 3;
    const std::size_t n = part.size();
    assert(n >= 8);
    const auto time = timeS.subspan(part.begin, n);
    const auto values = x.subspan(part.begin, n);
    const double middle = values[n / 2]; // keeps squares small
    std::array<std::vector<double>, tausS.size()> decay;
    for (std::size_t k = 0; k < tausS.size(); ++k)
        for (double t : time) decay[k].push_back(std::exp(-(t - time.front()) / tausS[k]));

    const auto costs = [&](bool forwards) {
        Costs best{std::vector<double>(n + 1, std::numeric_limits<double>::infinity()),
                   std::vector<std::size_t>(n + 1, 0)};
        for (std::size_t k = 0; k < tausS.size(); ++k) {
            Sums sums;
            for (std::size_t i = 0; i < n; ++i) {
                const std::size_t sample = forwards ? i : n - 1 - i;
                sums.add(values[sample] - middle, decay[k][sample]);
                const std::size_t border = forwards ? i + 1 : sample;
                if (sums.n < least || !(sums.rss() < best.rss[border])) continue;
                best.rss[border] = sums.rss();
                best.tau[border] = k;
            }
        }
        return best;
    };
    const Costs before = costs(true);
    const Costs after = costs(false);
    const auto courseOf = [&](std::size_t begin, std::size_t end, std::size_t tau) {
        Sums sums;
        for (std::size_t i = begin; i < end; ++i) sums.add(values[i] - middle, decay[tau][i]);
        return Course{middle + sums.at(decay[tau][begin]), middle + sums.at(decay[tau][end - 1]), sums.rss()};
    };
    std::size_t at = least;
    for (std::size_t k = least; k + least <= n; ++k)
        if (before.rss[k] + after.rss[k] < before.rss[at] + after.rss[at]) at = k;
    return {part.begin + at, courseOf(0, at, before.tau[at]), courseOf(at, n, after.tau[at]),
            courseOf(0, n, before.tau[n])};
}

} // namespace ibuki
