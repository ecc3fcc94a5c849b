// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/studentized_range.h"

#include "core/distributions/distributions.h"
#include "core/distributions/growing_root.h"
#include "core/distributions/memo.h"
#include "core/distributions/normal.h"

#include <algorithm>
#include <boost/math/constants/constants.hpp>
#include <cassert>
#include <numbers>
#include <vector>

namespace ibuki {
namespace {

/// x^n for n ≥ 0 by squaring.
double power(double x, int n) {
    double result = 1;
    for (; n > 0; n >>= 1) {
        if (n & 1) result *= x;
        x *= x;
    }
    return result;
}

/// Probability that the range of k standard normals is at most w, for many w: what depends on the nodes z
/// alone is made once.
class RangeCdf {
public:
    explicit RangeCdf(int k) : k_(k), step_(k <= 20 ? 0.25 : 0.125) {
        const int reach = static_cast<int>(8.5 / step_);
        for (int i = -reach; i <= reach; ++i) {
            const double z = i * step_;
            nodes_.push_back({z, normalDensity(z), std::erfc(z / std::numbers::sqrt2),
                              std::erfc(-z / std::numbers::sqrt2)});
        }
    }

    double operator()(double w) const {
        if (w <= 0) return 0;
        double sum = 0;
        for (const Node& node : nodes_) sum += node.density * power(between(node, node.z - w), k_ - 1);
        return std::min(1.0, k_ * step_ * sum);
    }

private:
    struct Node {
        double z;
        double density;
        double upper; ///< erfc(z/√2), twice the tail above z
        double lower; ///< erfc(−z/√2), twice the tail below
    };

    /// Φ(z) − Φ(b), b ≤ z, without loss of digits in either tail.
    static double between(const Node& node, double b) {
        if (b > 0) return 0.5 * (std::erfc(b / std::numbers::sqrt2) - node.upper);
        if (node.z < 0) return 0.5 * (node.lower - std::erfc(-b / std::numbers::sqrt2));
        return 0.5 * ((1 - node.upper) - std::erf(b / std::numbers::sqrt2));
    }

    int k_;
    double step_;
    std::vector<Node> nodes_;
};

double cdfWith(const RangeCdf& range, double q, double nu) {
    if (!(q > 0)) return 0;
    return std::min(1.0, expectOverScale(nu, [&](double s) { return range(q * s); }));
}

} // namespace

double studentizedRangeCdf(double q, int k, double nu) {
    assert(k >= 2 && nu > 0);
    return cdfWith(RangeCdf(k), q, nu);
}

double studentizedRangeQuantile(double p, int k, double nu) {
    assert(p > 0 && p < 1 && k >= 2 && nu > 0);
    const double student = nu <= 1e8 ? studentQuantile(0.5 * (1 + p), nu) : normalQuantile(0.5 * (1 + p));
    if (k == 2) return std::numbers::sqrt2 * student; // exact identity
    // The range of k means is stochastically larger than that of two.
    const double lo = 0.9999 * std::numbers::sqrt2 * student;
    static Memo known;
    return known({p, double(k), nu}, [&] {
        const RangeCdf range(k);
        return rootOfGrowing([&](double q) { return cdfWith(range, q, nu) - p; }, lo,
                             std::max(1.5 * lo, 1.0));
    });
}

StudentizedRangeTable::StudentizedRangeTable(int k, double nu)
    : median_(studentizedRangeQuantile(0.5, k, nu)) {
    constexpr int points = 400;
    const RangeCdf range(k);
    for (int i = 0; i <= points; ++i) {
        const double place = 0.5 * (1 - std::cos(boost::math::constants::pi<double>() * i / points));
        place_.push_back(place);
        value_.push_back(i == 0 ? 0 : i == points ? 1 : cdfWith(range, median_ * place / (1 - place), nu));
    }
}

double StudentizedRangeTable::operator()(double q) const {
    if (!(q > 0)) return 0;
    const double place = q / (q + median_);
    double above = 0;
    double below = 0;
    for (std::size_t i = 0; i < place_.size(); ++i) {
        const double distance = place - place_[i];
        if (distance == 0) return value_[i];
        const double end = i == 0 || i + 1 == place_.size() ? 0.5 : 1;
        const double weight = (i % 2 == 0 ? end : -end) / distance;
        above += weight * value_[i];
        below += weight;
    }
    return std::clamp(above / below, 0.0, 1.0);
}

} // namespace ibuki
