// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/rainflow.h"

#include <cmath>

namespace ibuki {

std::vector<std::size_t> turningIndexes(std::span<const double> values, double least) {
    std::vector<std::size_t> found;
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (!std::isfinite(values[i])) continue;
        if (found.empty()) {
            found.push_back(i);
            continue;
        }
        const double step = values[i] - values[found.back()];
        if (step == 0) continue;
        const bool onward =
            found.size() > 1 && (values[found.back()] - values[found[found.size() - 2]]) * step > 0;
        if (onward)
            found.back() = i;
        else if (std::abs(step) >= least)
            found.push_back(i);
    }
    return found;
}

std::vector<double> turningPoints(std::span<const double> values, double least) {
    std::vector<double> found;
    for (const std::size_t at : turningIndexes(values, least)) found.push_back(values[at]);
    return found;
}

void RainflowCounter::count(double a, double b, double how) {
    closed_.push_back({std::abs(a - b), (a + b) / 2, how});
}

void RainflowCounter::add(double turningPoint) {
    points_.push_back(turningPoint);
    while (points_.size() >= 3) {
        const std::size_t last = points_.size() - 1;
        const double x = std::abs(points_[last] - points_[last - 1]);
        const double y = std::abs(points_[last - 1] - points_[last - 2]);
        if (x < y) break;
        if (last == 2) { // the earlier range holds the start
            count(points_[0], points_[1], 0.5);
            points_.erase(points_.begin());
        } else {
            count(points_[last - 2], points_[last - 1], 1);
            points_.erase(points_.end() - 3, points_.end() - 1);
        }
    }
}

std::vector<CountedCycle> RainflowCounter::open() const {
    std::vector<CountedCycle> halves;
    for (std::size_t i = 1; i < points_.size(); ++i)
        halves.push_back({std::abs(points_[i] - points_[i - 1]), (points_[i] + points_[i - 1]) / 2, 0.5});
    return halves;
}

std::vector<CountedCycle> rainflow(std::span<const double> turningPoints) {
    RainflowCounter counter;
    for (const double point : turningPoints) counter.add(point);
    auto cycles = counter.closed();
    for (const CountedCycle& half : counter.open()) cycles.push_back(half);
    return cycles;
}

double cyclesOf(std::span<const CountedCycle> cycles, double leastRange) {
    double sum = 0;
    for (const CountedCycle& cycle : cycles)
        if (cycle.range >= leastRange) sum += cycle.count;
    return sum;
}

} // namespace ibuki
