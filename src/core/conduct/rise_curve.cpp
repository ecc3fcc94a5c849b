// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/rise_curve.h"

#include "core/reduce/ambient.h"
#include "core/reduce/metric.h"
#include "core/series/stretch_means.h"

#include <algorithm>

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
    StretchMeans rise(stepS, mostPoints);
    for (std::size_t i = 0; i < chip.size() && trace.timeS[i] <= phase->endS; ++i)
        if (trace.timeS[i] >= phase->startS) rise.take(trace.timeS[i], chip[i] - room.valuesC[i]);
    for (const MeanStretch& stretch : rise.stretches())
        curve.points.push_back({stretch.beginS + rise.widthS() / 2 - phase->startS, stretch.mean()});
    return curve;
}

} // namespace ibuki
