// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/rise_curve.h"

#include "core/reduce/ambient.h"
#include "core/reduce/metric.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double stepS = 10;
constexpr std::size_t mostPoints = 720;

} // namespace

std::optional<double> RiseCurve::at(double timeS) const {
    if (points.empty() || timeS < points.front().timeS || timeS > points.back().timeS) return std::nullopt;
    const auto behind = std::lower_bound(points.begin(), points.end(), timeS,
                                         [](const RisePoint& p, double t) { return p.timeS < t; });
    if (behind == points.begin()) return behind->riseK;
    const auto before = std::prev(behind);
    const double share = (timeS - before->timeS) / (behind->timeS - before->timeS);
    return before->riseK + share * (behind->riseK - before->riseK);
}

RiseCurve riseCurve(const Trace& trace, const LoadReduction& load, Metric metric) {
    RiseCurve curve;
    const auto phase = loadPhase(load);
    if (!phase) return curve;
    const auto chip = metricSeries(trace, chipChannels(trace, {}), metric);
    const AmbientSeries room = ambientSeries(trace, {});
    if (chip.empty() || room.valuesC.size() != chip.size()) return curve;
    double sum = 0;
    int count = 0;
    double beginS = phase->startS;
    const auto close = [&] {
        if (count > 0) curve.points.push_back({beginS + stepS / 2 - phase->startS, sum / count});
        sum = 0;
        count = 0;
    };
    for (std::size_t i = 0; i < chip.size() && curve.points.size() < mostPoints; ++i) {
        if (trace.timeS[i] < phase->startS) continue;
        if (trace.timeS[i] > phase->endS) break;
        while (trace.timeS[i] >= beginS + stepS) {
            close();
            beginS += stepS * std::max(1.0, std::floor((trace.timeS[i] - beginS) / stepS));
        }
        const double rise = chip[i] - room.valuesC[i];
        if (!std::isfinite(rise)) continue;
        sum += rise;
        ++count;
    }
    close();
    return curve;
}

} // namespace ibuki
