// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/multivariate_t.h"

#include "core/stats/growing_root.h"
#include "core/stats/normal.h"

#include <algorithm>
#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/normal.hpp>
#include <cmath>

namespace ibuki {
namespace {

constexpr int points = 4'096;
constexpr double leastPivot = 1e-10; ///< below it a variable follows from those before

/// Lower triangle L with L Lᵀ the correlation; rows of what follows from others have a 0 on the diagonal.
std::vector<std::vector<double>> rootOf(const Columns& correlation) {
    const std::size_t m = correlation.rows();
    std::vector<std::vector<double>> root(m, std::vector<double>(m));
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

double normalQuantile(double p) {
    return boost::math::quantile(boost::math::normal(), std::clamp(p, 1e-16, 1 - 1e-16));
}

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
double productAt(double limit, const std::vector<std::vector<double>>& root, const Place& place,
                 std::vector<double>& z) {
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
        z[i] = normalQuantile(low + place(i + 1) * width);
    }
    return product;
}

} // namespace

double multivariateTCdf(double d, const Columns& correlation, double nu) {
    const auto root = rootOf(correlation);
    std::vector<double> z(root.size());
    double sum = 0;
    for (int n = 0; n < points; ++n) {
        const auto place = [n](std::size_t i) { // folded, so that it meets itself at the ends
            const double x = (n + 0.5) * generator(i);
            return std::abs(2 * (x - std::floor(x)) - 1);
        };
        double scale = 1;
        if (nu <= 1e8) {
            const double p = std::clamp(place(0), 1e-15, 1 - 1e-15);
            scale = std::sqrt(boost::math::quantile(boost::math::chi_squared(nu), p) / nu);
        }
        sum += productAt(d * scale, root, place, z);
    }
    return sum / points;
}

double multivariateTQuantile(double p, const Columns& correlation, double nu) {
    return rootOfGrowing([&](double d) { return multivariateTCdf(d, correlation, nu) - p; }, 0.5, 4);
}

} // namespace ibuki
