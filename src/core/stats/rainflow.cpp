// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/rainflow.h"

#include <cmath>

namespace ibuki {

std::vector<double> turningPoints(std::span<const double> values, double least) {
    std::vector<double> found;
    for (const double value : values) {
        if (!std::isfinite(value)) continue;
        if (found.empty()) {
            found.push_back(value);
            continue;
        }
        const double step = value - found.back();
        if (step == 0) continue;
        if (found.size() == 1) {
            if (std::abs(step) >= least) found.push_back(value);
            continue;
        }
        const bool onward = (found.back() - found[found.size() - 2]) * step > 0;
        if (onward)
            found.back() = value;
        else if (std::abs(step) >= least)
            found.push_back(value);
    }
    return found;
}

std::vector<CountedCycle> rainflow(std::span<const double> turningPoints) {
    std::vector<CountedCycle> cycles;
    std::vector<double> open;
    const auto count = [&](double a, double b, double how) {
        cycles.push_back({std::abs(a - b), (a + b) / 2, how});
    };
    for (const double point : turningPoints) {
        open.push_back(point);
        while (open.size() >= 3) {
            const std::size_t last = open.size() - 1;
            const double x = std::abs(open[last] - open[last - 1]);
            const double y = std::abs(open[last - 1] - open[last - 2]);
            if (x < y) break;
            if (last == 2) { // Y holds the start
                count(open[0], open[1], 0.5);
                open.erase(open.begin());
            } else {
                count(open[last - 2], open[last - 1], 1);
                open.erase(open.end() - 3, open.end() - 1);
            }
        }
    }
    for (std::size_t i = 1; i < open.size(); ++i) count(open[i - 1], open[i], 0.5);
    return cycles;
}

double cyclesOf(std::span<const CountedCycle> cycles, double leastRange) {
    double sum = 0;
    for (const CountedCycle& cycle : cycles)
        if (cycle.range >= leastRange) sum += cycle.count;
    return sum;
}

} // namespace ibuki
