// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How long something takes.

#include <algorithm>
#include <chrono>

namespace ibuki {

inline double secondsSince(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

template <class Work> double bestSeconds(int times, const Work& work) {
    double best = 1e300;
    for (int i = 0; i < times; ++i) {
        const auto begin = std::chrono::steady_clock::now();
        work();
        best = std::min(best, secondsSince(begin));
    }
    return best;
}

} // namespace ibuki
