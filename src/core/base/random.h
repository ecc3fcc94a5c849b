// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A seeded generator whose numbers are the same on every machine: std::mt19937_64 is fixed by the standard,
// the normal deviate is made from it by the inverse distribution (std::normal_distribution is not fixed).

#include <cstdint>
#include <random>

namespace ibuki {

class Random {
public:
    explicit Random(std::uint64_t seed) : engine_(seed) {}

    double uniform(); ///< in (0, 1)
    double normal();  ///< mean 0, standard deviation 1

private:
    std::mt19937_64 engine_;
};

} // namespace ibuki
