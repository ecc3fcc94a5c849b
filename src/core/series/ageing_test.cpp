// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/series/ageing_course.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr int nullDraws = 1'999;
constexpr double nearlyInfinite = 1e12; ///< θ at which mounts tell nothing between themselves
constexpr int tausTried = 25;

/// Shapes of unit length, mounts and columns beside taken out.
std::vector<std::vector<double>> unitShapes(const AgeingSample& sample, const AgeingSample::At& at) {
    std::vector<std::vector<double>> shapes;
    const auto add = [&](AgeingModel model, double tau) {
        auto own = at.reduced(sample.of([&](double t) { return ageingShape(model, t, tau); }));
        const double length = std::sqrt(dot(own, own));
        if (!(length > 1e-9)) return;
        for (double& value : own) value /= length;
        shapes.push_back(std::move(own));
    };
    const Interval bounds = tauBounds(sample);
    for (const AgeingModel model : ageingModels) {
        if (model == AgeingModel::constant) continue;
        if (!endsSomewhere(model))
            add(model, 1);
        else
            for (int i = 0; i < tausTried; ++i)
                add(model, bounds.lo * std::pow(bounds.hi / bounds.lo, i / (tausTried - 1.0)));
    }
    return shapes;
}

/// Of df degrees of freedom ≥ 1, as twice a gamma deviate of shape df/2 (Marsaglia & Tsang 2000; below shape
/// 1 of one more, times U^{1/shape}).
double chiSquared(Random& random, double df) {
    const double asked = df / 2;
    const double shape = asked < 1 ? asked + 1 : asked;
    const double d = shape - 1.0 / 3;
    const double c = 1 / std::sqrt(9 * d);
    for (;;) {
        const double x = random.normal();
        const double v = std::pow(1 + c * x, 3);
        if (v <= 0 || std::log(random.uniform()) >= x * x / 2 + d * (1 - v + std::log(v))) continue;
        return 2 * d * v * (asked < 1 ? std::pow(random.uniform(), 1 / asked) : 1);
    }
}

Columns asColumns(const std::vector<std::vector<double>>& vectors) {
    Columns columns(vectors.front().size(), vectors.size());
    for (std::size_t c = 0; c < vectors.size(); ++c)
        std::copy(vectors[c].begin(), vectors[c].end(), columns[c].begin());
    return columns;
}

} // namespace

double noChangeP(const AgeingSample& sample) {
    if (sample.times().size() < 2) return 1;
    const AgeingSample::At at(sample, sample.isNested() ? nearlyInfinite : 0);
    const double df =
        static_cast<double>(sample.size()) - (sample.isNested() ? sample.mounts() : 1) - sample.besides();
    const auto shapes = unitShapes(sample, at);
    if (df < 2 || shapes.empty() || !(at.yy() > 0)) return 1;
    double seen = 0;
    for (const auto& shape : shapes) seen = std::max(seen, std::pow(dot(shape, at.y()), 2) / at.yy());

    // All of it happens in the few directions that the shapes span; of the rest only the length counts.
    const Columns basis = orthonormalBasis(asColumns(shapes), 1e-4);
    const std::size_t rank = basis.columns();
    std::vector<std::vector<double>> inBasis;
    for (const auto& shape : shapes) {
        auto& own = inBasis.emplace_back();
        for (std::size_t k = 0; k < rank; ++k) own.push_back(dot(basis[k], shape));
    }
    const double rest = df - static_cast<double>(rank);
    Random random(20'261'201);
    int asLarge = 1;
    std::vector<double> z(rank);
    for (int draw = 0; draw < nullDraws; ++draw) {
        double square = 0;
        for (double& one : z) {
            one = random.normal();
            square += one * one;
        }
        if (rest > 0) square += chiSquared(random, rest);
        double most = 0;
        for (const auto& shape : inBasis) most = std::max(most, std::pow(dot(shape, z), 2));
        if (most / square >= seen) ++asLarge;
    }
    return asLarge / (nullDraws + 1.0);
}

} // namespace ibuki
