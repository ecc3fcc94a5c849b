// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <functional>
#include <vector>

namespace ibuki::bench {

/// Median and worst of some rounds, ms.
inline void time(const char* what, int rounds, const std::function<void(int)>& work) {
    std::vector<double> ms;
    for (int i = 0; i < rounds; ++i) {
        const auto begin = std::chrono::steady_clock::now();
        work(i);
        ms.push_back(
            std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    }
    std::sort(ms.begin(), ms.end());
    std::printf("%-52s median %7.2f ms  worst %7.2f ms  %5.1f frames\n", what, ms[ms.size() / 2], ms.back(),
                ms[ms.size() / 2] / 16.7);
}

} // namespace ibuki::bench
