// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/bench_health.h"

#include "core/base/input_error.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "core/distributions/summary.h"
#include "core/series/straight_line.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr std::size_t leastMounts = 5;
constexpr int leastBaseline = 3;
constexpr double movingRangeOfTwo = 1.128; ///< d₂ of two normals, as control charts have it

void checkOptions(const HealthOptions& options, std::size_t mounts) {
    if (mounts < leastMounts) throw InputError("health-few", {}, {{"count", mounts}});
    if (!(options.lambda > 0 && options.lambda <= 1)) throw InputError("health-lambda", {});
    if (!(options.limit > 0)) throw InputError("health-limit", {});
    if (options.sd && !(*options.sd > 0)) throw InputError("health-sd", {});
    if (options.baseline && (*options.baseline < 2 || *options.baseline > static_cast<int>(mounts)))
        throw InputError("health-baseline", {}, {{"count", mounts}});
}

double movingRangeSd(const std::vector<CheckValue>& values, int baseline) {
    double sum = 0;
    for (int i = 1; i < baseline; ++i)
        sum += std::abs(values[static_cast<std::size_t>(i)].value
                        - values[static_cast<std::size_t>(i) - 1].value);
    return sum / (baseline - 1) / movingRangeOfTwo;
}

void addPoints(BenchHealth& health, const std::vector<CheckValue>& values, const HealthOptions& options) {
    const double lambda = options.lambda;
    double ewma = health.centre;
    double left = 1; // (1 − λ)^{2i}
    for (const CheckValue& one : values) {
        ewma += lambda * (one.value - ewma);
        left *= (1 - lambda) * (1 - lambda);
        const double half = options.limit * health.sigma * std::sqrt(lambda / (2 - lambda) * (1 - left));
        const bool out = std::abs(ewma - health.centre) > half;
        health.points.push_back(
            {one.order, one.value, ewma, health.centre - half, health.centre + half, out});
        if (out && !health.moved) health.firstOut = one.order;
        health.moved = health.moved || out;
    }
}

void addDrift(BenchHealth& health, const std::vector<CheckValue>& values, double confidence) {
    std::vector<double> x;
    std::vector<double> y;
    for (const CheckValue& one : values) {
        x.push_back(one.order);
        y.push_back(one.value);
    }
    const StraightLine line(x, y);
    if (!(line.spread() > 0)) throw InputError("health-order", {});
    health.slope = line.slope();
    health.slopeInterval = line.slopeInterval(confidence);
    const double se = line.slopeSe();
    if (se > 0)
        health.slopeP = 2 * studentUpper(std::abs(health.slope) / se, line.df());
    else
        health.slopeP = health.slope == 0 ? 1 : 0;
}

} // namespace

BenchHealth judgeHealth(std::vector<CheckValue> values, const HealthOptions& options) {
    checkOptions(options, values.size());
    std::stable_sort(values.begin(), values.end(),
                     [](const CheckValue& a, const CheckValue& b) { return a.order < b.order; });
    BenchHealth health;
    health.baseline =
        options.baseline.value_or(std::max(leastBaseline, static_cast<int>((values.size() + 1) / 2)));
    std::vector<double> first;
    for (int i = 0; i < health.baseline; ++i) first.push_back(values[static_cast<std::size_t>(i)].value);
    health.centre = mean(first);
    health.sigma = options.sd.value_or(movingRangeSd(values, health.baseline));
    if (!(health.sigma > 0)) throw InputError("health-no-scatter", {});
    addPoints(health, values, options);
    addDrift(health, values, options.confidence);
    return health;
}

} // namespace ibuki
