// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/multivariate_t.h"

#include "core/distributions/distributions.h"
#include "core/distributions/normal.h"

#include <algorithm>
#include <boost/math/quadrature/gauss.hpp>
#include <cmath>

namespace ibuki {
namespace {

constexpr int points = 4'096;
constexpr std::size_t mostNested = 4;
constexpr double leastNested = 0.1; ///< smaller pivots make the nested integrands steep
constexpr double normalReach = 7.5;
constexpr double leastPivot = 1e-10; ///< below it a variable follows from those before

/// Lower triangle L with L Lᵀ the correlation; rows of what follows from others have a 0 on the diagonal.
using Root = std::vector<std::vector<double>>;

Root rootOf(const Columns& correlation) {
    const std::size_t m = correlation.rows();
    Root root(m, std::vector<double>(m));
    for (std::size_t i = 0; i < m; ++i)
        for (std::size_t j = 0; j <= i; ++j) {
            double left = correlation[j][i];
            for (std::size_t k = 0; k < j; ++k) left -= root[i][k] * root[j][k];
            if (i == j)
                root[i][i] = left > leastPivot ? std::sqrt(left) : 0;
            else
                root[i][j] = root[j][j] > 0 ? left / root[j][j] : 0;
        }
    return root;
}

double boundedQuantile(double p) { return normalQuantile(std::clamp(p, 1e-16, 1 - 1e-16)); }

/// Square roots of primes, by whose fractions the lattice steps.
double generator(std::size_t i) {
    static constexpr int primes[] = {2,  3,  5,  7,  11, 13, 17, 19, 23, 29, 31, 37,  41, 43,
                                     47, 53, 59, 61, 67, 71, 73, 79, 83, 89, 97, 101, 103};
    constexpr std::size_t count = sizeof primes / sizeof *primes;
    const std::size_t round = 1 + i / count;
    return std::sqrt(primes[i % count] * static_cast<double>(round));
}

/// Of one point of the cube; place(i): its i-th coordinate.
template <class Place>
double productAt(double limit, const Root& root, const Place& place, std::vector<double>& z) {
    double product = 1;
    for (std::size_t i = 0; i < root.size(); ++i) {
        double mean = 0;
        for (std::size_t k = 0; k < i; ++k) mean += root[i][k] * z[k];
        if (!(root[i][i] > 0)) {
            if (std::abs(mean) > limit) return 0;
            z[i] = 0;
            continue;
        }
        const double low = normalCdf((-limit - mean) / root[i][i]);
        const double width = normalCdf((limit - mean) / root[i][i]) - low;
        product *= width;
        z[i] = boundedQuantile(low + place(i + 1) * width);
    }
    return product;
}

/// By the lattice, for a known spread.
double latticeSpread(double x, const Root& root) {
    std::vector<double> z(root.size());
    double sum = 0;
    for (int n = 0; n < points; ++n) {
        const auto place = [n](std::size_t i) { // folded, so that it meets itself at the ends
            const double at = (n + 0.5) * generator(i - 1);
            return std::abs(2 * (at - std::floor(at)) - 1);
        };
        sum += productAt(x, root, place, z);
    }
    return sum / points;
}

/// By nested rules of so many points, half of them for the first variable: variable i given those before it.
template <int count> double nestedSpread(double x, const Root& root, std::size_t i, std::vector<double>& z) {
    double mean = 0;
    for (std::size_t k = 0; k < i; ++k) mean += root[i][k] * z[k];
    const double from = (-x - mean) / root[i][i];
    const double to = (x - mean) / root[i][i];
    if (i + 1 == root.size()) return normalCdf(to) - normalCdf(from);
    const auto given = [&](double at) {
        z[i] = at;
        return normalDensity(at) * nestedSpread<count>(x, root, i + 1, z);
    };
    const double high = std::min(to, normalReach);
    if (i == 0) // what is above 0 is as likely as what is below
        return 2 * boost::math::quadrature::gauss<double, count / 2>::integrate(given, 0.0, high);
    const double low = std::max(from, -normalReach);
    return low < high ? boost::math::quadrature::gauss<double, count>::integrate(given, low, high) : 0;
}

} // namespace

JointLimit multivariateFamily(const Columns& correlation) {
    auto root = rootOf(correlation);
    double finest = 1;
    for (std::size_t i = 0; i < root.size(); ++i) finest = std::min(finest, root[i][i]);
    const bool nested = root.size() <= mostNested && finest > leastNested;
    return {[root = std::move(root), nested](double x) {
                std::vector<double> z(root.size());
                if (!nested) return latticeSpread(x, root);
                return root.size() < mostNested ? nestedSpread<30>(x, root, 0, z)
                                                : nestedSpread<24>(x, root, 0, z);
            },
            nested ? finest : 1, nested ? JointLimit::Panels::fine : JointLimit::Panels::coarse};
}

double multivariateTCdf(double d, const Columns& correlation, double nu) {
    return d > 0 ? multivariateFamily(correlation).cdf(d, nu) : 0;
}

double multivariateTQuantile(double p, const Columns& correlation, double nu) {
    return multivariateFamily(correlation).quantile(p, nu);
}

} // namespace ibuki
