// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Cycles in a course of temperatures by rainflow counting (ASTM E1049-85, 5.4.4): what stress in a joint
// follows.

#include <span>
#include <vector>

namespace ibuki {

struct CountedCycle {
    double range = 0;
    double mean = 0;
    double count = 1; ///< 1, or 0.5 of a half cycle
};

/// First and last value and every reversal between them. A reversal smaller than `least` is taken out with
/// its neighbour, so that noise makes no cycles; 0 keeps all.
std::vector<double> turningPoints(std::span<const double> values, double least = 0);
/// Where they are.
std::vector<std::size_t> turningIndexes(std::span<const double> values, double least = 0);

/// Point after point, so that the count can be asked for on the way.
class RainflowCounter {
public:
    void add(double turningPoint);
    /// In the order in which they closed.
    const std::vector<CountedCycle>& closed() const { return closed_; }
    /// What has not closed: half cycles.
    std::vector<CountedCycle> open() const;

private:
    void count(double a, double b, double how);

    std::vector<double> points_; ///< that wait
    std::vector<CountedCycle> closed_;
};

/// In the order in which they close; what never closes counts as half cycles.
std::vector<CountedCycle> rainflow(std::span<const double> turningPoints);

/// Whole cycles of at least that range; halves count as halves.
double cyclesOf(std::span<const CountedCycle> cycles, double leastRange);

} // namespace ibuki
