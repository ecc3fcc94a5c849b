// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/dunnett.h"

#include "core/stats/growing_root.h"
#include "core/stats/memo.h"
#include "core/stats/normal.h"
#include "core/stats/studentized_range.h"

#include <algorithm>
#include <boost/math/constants/constants.hpp>
#include <cassert>
#include <numbers>
#include <vector>

namespace ibuki {
namespace {

/// Groups of one size share their factor of the product.
struct SizeClass {
    double lambda = 0;
    double root = 0; ///< √(1 − λ²)
    int count = 0;
};

std::vector<SizeClass> sizeClasses(std::span<const double> n, double n0) {
    std::vector<SizeClass> classes;
    for (double size : n) {
        const double lambda = std::sqrt(size / (size + n0));
        const auto same = std::find_if(classes.begin(), classes.end(),
                                       [&](const SizeClass& c) { return c.lambda == lambda; });
        if (same != classes.end())
            ++same->count;
        else
            classes.push_back({lambda, std::sqrt(n0 / (size + n0)), 1});
    }
    return classes;
}

/// P for a known spread: the inner integral at d s = x.
double knownSpread(double x, const std::vector<SizeClass>& classes, double step, Sides sides) {
    double sum = 0;
    const int reach = static_cast<int>(8.5 / step);
    for (int i = -reach; i <= reach; ++i) {
        const double z = i * step;
        double product = boost::math::constants::one_div_root_two_pi<double>() * std::exp(-0.5 * z * z);
        for (const SizeClass& size : classes) {
            const double upper = normalCdf((size.lambda * z + x) / size.root);
            const double lower = sides == Sides::two ? normalCdf((size.lambda * z - x) / size.root) : 0.0;
            product *= std::pow(std::max(0.0, upper - lower), size.count);
        }
        sum += product;
    }
    return std::min(1.0, step * sum);
}

} // namespace

double dunnettCdf(double d, std::span<const double> n, double n0, double nu, Sides sides) {
    assert(!n.empty() && n0 > 0 && nu > 0);
    if (sides == Sides::two && !(d > 0)) return 0;
    const auto classes = sizeClasses(n, n0);
    double lambda = 0;
    for (const SizeClass& size : classes) lambda = std::max(lambda, size.lambda);
    // A fixed step fails where the product is steep, that is for n_i far above n_0.
    const double step = std::min(0.25, 0.25 * std::sqrt(1 - lambda * lambda) / lambda);
    return expectOverScale(nu, [&](double s) { return knownSpread(d * s, classes, step, sides); });
}

double dunnettQuantile(double p, std::span<const double> n, double n0, double nu, Sides sides) {
    assert(p > 0.5 && p < 1);
    static Memo known;
    std::vector<double> arguments{p, n0, nu, sides == Sides::two ? 2.0 : 1.0};
    arguments.insert(arguments.end(), n.begin(), n.end());
    std::sort(arguments.begin() + 4, arguments.end()); // the order of the groups is none of its business
    return known(std::move(arguments), [&] {
        return rootOfGrowing([&](double d) { return dunnettCdf(d, n, n0, nu, sides) - p; }, 0.1, 3.0);
    });
}

} // namespace ibuki
