// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/curve_test.h"

#include "core/base/random.h"
#include "core/comparison/dealing.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace ibuki {
namespace {

constexpr double mostDealings = 20'000;
constexpr int drawnWays = 9'999;
constexpr double tTie = 1e-9; ///< of |t|: the same deal summed in another order

/// Sums over the curves of a group come from those over all, which never change.
class Dealing {
public:
    Dealing(const std::vector<std::vector<double>>& a, const std::vector<std::vector<double>>& b)
        : inFirst_(a.size()), points_(a[0].size()), curves_(a) {
        curves_.insert(curves_.end(), b.begin(), b.end());
        // About the first curve: differences alone count, and squares of them lose no digits.
        const std::vector<double> origin = curves_[0];
        for (auto& curve : curves_)
            for (std::size_t p = 0; p < points_; ++p) curve[p] -= origin[p];
        total_.assign(points_, 0);
        squares_.assign(points_, 0);
        for (const auto& curve : curves_)
            for (std::size_t p = 0; p < points_; ++p) {
                total_[p] += curve[p];
                squares_[p] += curve[p] * curve[p];
            }
    }

    std::size_t curves() const { return curves_.size(); }
    std::size_t inFirst() const { return inFirst_; }

    /// t of each point with these curves in the first group.
    std::vector<double> t(const std::vector<std::size_t>& first) const {
        const auto n = static_cast<double>(inFirst_), m = static_cast<double>(curves_.size() - inFirst_);
        std::vector<double> t(points_);
        for (std::size_t p = 0; p < points_; ++p) {
            double sum = 0;
            for (std::size_t c : first) sum += curves_[c][p];
            const double meanA = sum / n, meanB = (total_[p] - sum) / m;
            const double within = squares_[p] - n * meanA * meanA - m * meanB * meanB;
            const double se = std::sqrt(std::max(0.0, within) / (n + m - 2) * (1 / n + 1 / m));
            const double difference = meanA - meanB;
            t[p] = se > 0 ? difference / se : difference == 0 ? 0 : std::copysign(1e12, difference);
        }
        return t;
    }
    double largest(const std::vector<std::size_t>& first) const {
        double most = 0;
        for (double value : t(first)) most = std::max(most, std::abs(value));
        return most;
    }

private:
    std::size_t inFirst_ = 0, points_ = 0;
    std::vector<std::vector<double>> curves_;
    std::vector<double> total_, squares_;
};

/// Largest |t| of every deal, or of many; the one that was observed is among them.
std::vector<double> allLargest(const Dealing& dealing) {
    const std::size_t n = dealing.curves(), k = dealing.inFirst();
    std::vector<std::size_t> chosen(k);
    std::iota(chosen.begin(), chosen.end(), std::size_t{0});
    std::vector<double> largest{dealing.largest(chosen)};
    if (waysToDeal(n, k) <= mostDealings) {
        while (nextDeal(chosen, n)) largest.push_back(dealing.largest(chosen));
        return largest;
    }
    Random random(0x1b0c);
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), std::size_t{0});
    for (int way = 0; way < drawnWays; ++way) {
        for (std::size_t i = 0; i < k; ++i)
            std::swap(order[i],
                      order[i + static_cast<std::size_t>(random.uniform() * static_cast<double>(n - i))]);
        chosen.assign(order.begin(), order.begin() + static_cast<std::ptrdiff_t>(k));
        largest.push_back(dealing.largest(chosen));
    }
    return largest;
}

} // namespace

CurveTest compareCurves(const std::vector<std::vector<double>>& a, const std::vector<std::vector<double>>& b,
                        double confidence) {
    CurveTest test;
    if (a.size() < 2 || b.size() < 2 || a[0].empty()) return test;
    const Dealing dealing(a, b);
    std::vector<std::size_t> observed(a.size());
    std::iota(observed.begin(), observed.end(), std::size_t{0});
    test.t = dealing.t(observed);
    std::vector<double> largest = allLargest(dealing);
    std::sort(largest.begin(), largest.end());
    const auto pOf = [&](double value) {
        const auto least = std::lower_bound(largest.begin(), largest.end(), value * (1 - tTie));
        return static_cast<double>(largest.end() - least) / static_cast<double>(largest.size());
    };
    test.p = pOf(dealing.largest(observed));
    // Groups of one size: the deal with both exchanged has the same |t|.
    test.leastP = (a.size() == b.size() ? 2.0 : 1.0) / static_cast<double>(largest.size());
    for (std::size_t point = 0; point < test.t.size() && !test.firstApart; ++point)
        if (pOf(std::abs(test.t[point])) <= 1 - confidence + 1e-12) test.firstApart = point;
    return test;
}

} // namespace ibuki
