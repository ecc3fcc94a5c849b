// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/live_curve.h"

#include <algorithm>
#include <cmath>

namespace ibuki {

void LiveCurve::take(double timeS, double value) {
    if (!std::isfinite(value)) return;
    if (!stretches_.empty() && timeS < stretches_.back().beginS + widthS_) {
        Stretch& last = stretches_.back();
        last.lowest = std::min(last.lowest, value);
        last.highest = std::max(last.highest, value);
        last.sum += value;
        ++last.count;
        return;
    }
    while (stretches_.size() >= mostStretches) widen();
    stretches_.push_back({timeS, value, value, value, 1});
}

/// Twice the width: neighbours that fit into one become one.
void LiveCurve::widen() {
    widthS_ *= 2;
    std::vector<Stretch> wider;
    for (const Stretch& one : stretches_) {
        if (wider.empty() || one.beginS >= wider.back().beginS + widthS_) {
            wider.push_back(one);
            continue;
        }
        Stretch& last = wider.back();
        last.lowest = std::min(last.lowest, one.lowest);
        last.highest = std::max(last.highest, one.highest);
        last.sum += one.sum;
        last.count += one.count;
    }
    stretches_ = std::move(wider);
}

} // namespace ibuki
