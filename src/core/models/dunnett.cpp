// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/dunnett.h"

#include "core/distributions/growing_root.h"
#include "core/distributions/memo.h"
#include "core/distributions/normal.h"
#include "core/distributions/studentized_range.h"

#include <algorithm>
#include <boost/math/constants/constants.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>
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

constexpr double steepLambda = 0.9; ///< from here on a fixed step takes too many points
constexpr double sigmas = 8.5;      ///< beyond them a factor is 1 or 0 to double precision

/// P(|T_i| ≤ x) of one class at z ≥ 0.
double factorAt(const SizeClass& size, double z, double x) {
    const double middle = size.lambda * z;
    if (x - middle > sigmas * size.root) return 1;
    if (middle - x > sigmas * size.root) return 0;
    return std::max(0.0, normalCdf((middle + x) / size.root) - normalCdf((middle - x) / size.root));
}

/// The two-sided inner integral where the product falls steeply: it is 1 up to `from` and 0 from `to` on.
double steepSpread(double x, const std::vector<SizeClass>& classes) {
    double from = sigmas;
    double to = sigmas;
    for (const SizeClass& size : classes) {
        from = std::min(from, std::max(0.0, (x - sigmas * size.root) / size.lambda));
        to = std::min(to, (x + sigmas * size.root) / size.lambda);
    }
    double sum = 2 * normalCdf(from) - 1;
    if (from >= to) return std::min(1.0, sum);
    const auto product = [&](double z) {
        double all = normalDensity(z);
        for (const SizeClass& size : classes) {
            const double factor = factorAt(size, z, x);
            if (factor == 0) return 0.0;
            all *= size.count == 1 ? factor : std::pow(factor, size.count);
        }
        return all;
    };
    sum += 2 * boost::math::quadrature::gauss_kronrod<double, 21>::integrate(product, from, to, 12, 1e-11);
    return std::clamp(sum, 0.0, 1.0);
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

/// A fixed step fails where the product is steep.
double stepFor(const std::vector<SizeClass>& classes) {
    double lambda = 0;
    for (const SizeClass& size : classes) lambda = std::max(lambda, size.lambda);
    return std::min(0.25, 0.25 * std::sqrt(1 - lambda * lambda) / lambda);
}

} // namespace

double dunnettCdf(double d, std::span<const double> n, double n0, double nu, Sides sides) {
    assert(!n.empty() && n0 > 0 && nu > 0);
    if (sides == Sides::two && !(d > 0)) return 0;
    const auto classes = sizeClasses(n, n0);
    if (sides == Sides::one) {
        const double step = stepFor(classes);
        return expectOverScale(nu, [&](double s) { return knownSpread(d * s, classes, step, sides); });
    }
    return dunnettFamily(n, n0).cdf(d, nu);
}

JointLimit dunnettFamily(std::span<const double> n, double n0) {
    const auto classes = sizeClasses(n, n0);
    const double step = stepFor(classes);
    double finest = 1;
    double lambda = 0;
    for (const SizeClass& size : classes) {
        finest = std::min(finest, size.root);
        lambda = std::max(lambda, size.lambda);
    }
    const bool steep = lambda > steepLambda;
    return {[classes, step, steep](double x) {
                return steep ? steepSpread(x, classes) : knownSpread(x, classes, step, Sides::two);
            },
            std::max(finest, 1e-6)};
}

double dunnettQuantile(double p, std::span<const double> n, double n0, double nu, Sides sides) {
    assert(p > 0.5 && p < 1);
    static Memo known;
    std::vector<double> arguments{p, n0, nu, sides == Sides::two ? 2.0 : 1.0};
    arguments.insert(arguments.end(), n.begin(), n.end());
    std::sort(arguments.begin() + 4, arguments.end()); // the order of the groups is none of its business
    return known(std::move(arguments), [&] {
        if (sides == Sides::two) return dunnettFamily(n, n0).quantile(p, nu);
        return rootOfGrowing([&](double d) { return dunnettCdf(d, n, n0, nu, sides) - p; }, 0.1, 3.0);
    });
}

} // namespace ibuki
