// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/series/stretch_means.h"

#include <algorithm>
#include <cmath>

namespace ibuki {

void MeanStretch::take(double value) {
    lowest = std::min(lowest, value);
    highest = std::max(highest, value);
    sum += value;
    ++count;
}

void MeanStretch::take(const MeanStretch& next) {
    lowest = std::min(lowest, next.lowest);
    highest = std::max(highest, next.highest);
    sum += next.sum;
    count += next.count;
}

StretchMeans::StretchMeans(double widthS, std::size_t most, Overflow overflow)
    : widthS_(widthS), most_(most), overflow_(overflow) {}

void StretchMeans::take(double timeS, double value) {
    if (!std::isfinite(value)) return;
    const auto isNew = [&] { return stretches_.empty() || timeS - stretches_.back().beginS >= widthS_; };
    if (isNew() && stretches_.size() >= most_) {
        if (overflow_ == Overflow::forgetOldest)
            stretches_.erase(stretches_.begin());
        else
            while (stretches_.size() >= most_) widen();
    }
    if (isNew()) stretches_.push_back({timeS}); // widened, the last one may reach as far
    stretches_.back().take(value);
}

/// Twice the width: neighbours that fit into one become one.
void StretchMeans::widen() {
    widthS_ *= 2;
    std::vector<MeanStretch> wider;
    for (const MeanStretch& one : stretches_)
        if (wider.empty() || one.beginS - wider.back().beginS >= widthS_)
            wider.push_back(one);
        else
            wider.back().take(one);
    stretches_ = std::move(wider);
}

} // namespace ibuki
