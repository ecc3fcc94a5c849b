// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>

namespace ibuki {

/// What mounts are held against each other by, beside the question's own response: measured over the window
/// (to fanSpeed), or read beside it (from score on).
enum class SideResponse {
    power,
    perWatt,
    clock,
    fanSpeed,
    score,
    frameRate,
    lowFrameRate,
    renderTime,
    noise,
    fanShare,
    wallPower,
    other
};
constexpr SideResponse firstRead = SideResponse::score;

enum class Better { neither, higher, lower };

struct ResponseUsage {
    const char* unit = "";
    Better better = Better::neither;
};

/// The unit it usually has, and which way is better.
constexpr ResponseUsage typicalOf(SideResponse response) {
    constexpr std::array<ResponseUsage, 12> usages{{{"W", Better::neither},
                                                    {"K/W", Better::lower},
                                                    {"MHz", Better::higher},
                                                    {"rpm", Better::lower},
                                                    {"points", Better::higher},
                                                    {"1/s", Better::higher},
                                                    {"1/s", Better::higher},
                                                    {"s", Better::lower},
                                                    {"dB(A)", Better::lower},
                                                    {"%", Better::lower},
                                                    {"W", Better::lower},
                                                    {"", Better::neither}}};
    return usages[static_cast<std::size_t>(response)];
}

} // namespace ibuki
