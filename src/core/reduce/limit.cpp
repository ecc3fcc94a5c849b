// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/limit.h"

#include "core/distributions/summary.h"
#include "core/series/autocorrelation.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

/// Share of the finite samples of a segment that satisfy the condition; nothing without any.
template <class Condition>
std::optional<double> share(std::span<const double> x, Segment segment, Condition condition) {
    std::size_t all = 0;
    std::size_t met = 0;
    for (std::size_t i = segment.begin; i < segment.end; ++i) {
        if (!std::isfinite(x[i])) continue;
        ++all;
        met += condition(x[i]) ? 1 : 0;
    }
    if (all == 0) return std::nullopt;
    return static_cast<double>(met) / static_cast<double>(all);
}

std::optional<double> meanOver(std::span<const double> x, Segment segment) {
    if (x.empty()) return std::nullopt;
    std::vector<double> part;
    for (std::size_t i = segment.begin; i < segment.end; ++i)
        if (std::isfinite(x[i])) part.push_back(x[i]);
    if (part.empty()) return std::nullopt;
    return mean(part);
}

Segment first(std::span<const double> timeS, Segment load, double lengthS) {
    std::size_t end = load.begin;
    while (end < load.end && timeS[end] - timeS[load.begin] < lengthS) ++end;
    return {load.begin, end};
}

bool standsStill(const LimitInput& input) {
    const auto fit = fitSlope(input.timeS.subspan(input.window.begin, input.window.size()),
                              input.temperature.subspan(input.window.begin, input.window.size()));
    return fit && std::abs(fit->slope) * 60 < 0.1;
}

/// Power and clock before anything was cut: of the load's first minute.
struct Uncut {
    std::optional<double> powerW;
    std::optional<double> clockMHz;
};

Uncut uncut(const LimitInput& input) {
    const Segment minute = first(input.timeS, input.load, 60);
    return {meanOver(input.power, minute), meanOver(input.clock, minute)};
}

bool isBelow(const std::optional<double>& now, const std::optional<double>& before, double part) {
    return now && before && *before > 0 && *now < part * *before;
}

/// Power and clock are both below what they were (or were to be) while the temperature stands still.
bool cut(const LimitInput& input, const LimitSummary& summary, const ReduceSettings& settings) {
    Uncut before = uncut(input);
    const auto nominal = settings.nominalPowerW;
    if (nominal && before.powerW && *nominal <= 1.02 * *before.powerW) before.powerW = nominal;
    return isBelow(summary.sustainedPowerW, before.powerW, settings.cutShare)
           && isBelow(summary.sustainedClockMHz, before.clockMHz, settings.cutShare) && standsStill(input);
}

constexpr double heldShare = 0.3;     ///< of the settled samples within reach of the highest
constexpr double loneCutShare = 0.95; ///< where power or clock alone is logged

/// The temperature that the samples stand at while power and clock are cut; nothing when they do not.
std::optional<double> inferredLimit(const LimitInput& input, const LimitSummary& summary, Segment settled,
                                    const ReduceSettings& settings) {
    const Uncut before = uncut(input);
    const bool both = before.powerW && before.clockMHz;
    const double part = both ? settings.cutShare : loneCutShare;
    const bool powerCut = isBelow(summary.sustainedPowerW, before.powerW, part);
    const bool clockCut = isBelow(summary.sustainedClockMHz, before.clockMHz, part);
    if (both ? !(powerCut && clockCut) : !(powerCut || clockCut)) return std::nullopt;
    std::vector<double> finite;
    for (std::size_t i = settled.begin; i < settled.end; ++i)
        if (std::isfinite(input.temperature[i])) finite.push_back(input.temperature[i]);
    if (finite.size() < 20 || !standsStill(input)) return std::nullopt;
    const double highest = quantile(finite, 0.99); // one noisy sample is no limit
    const double reach = std::max(1.0, input.sensorStepK);
    const auto held = share(input.temperature, settled, [&](double v) { return v >= highest - reach; });
    return held && *held >= heldShare ? std::optional(highest) : std::nullopt;
}

} // namespace

LimitSummary judgeLimit(const LimitInput& input, const ReduceSettings& settings) {
    LimitSummary summary;
    summary.limitC = settings.limitC;
    summary.sustainedPowerW = meanOver(input.power, input.window);
    summary.sustainedClockMHz = meanOver(input.clock, input.window);
    const Segment settled{first(input.timeS, input.load, 60).end, input.load.end};
    if (!summary.limitC) {
        summary.limitC = inferredLimit(input, summary, settled, settings);
        summary.inferred = summary.limitC.has_value();
    }
    if (summary.limitC) {
        const double reach = std::max(1.0, input.sensorStepK);
        summary.fraction =
            share(input.temperature, settled, [&](double v) { return v >= *summary.limitC - reach; });
    }
    const auto flagged = input.limitFlag.empty()
                             ? std::optional<double>()
                             : share(input.limitFlag, settled, [](double v) { return v != 0; });
    summary.censored = (summary.fraction && *summary.fraction >= settings.limitShare)
                       || (flagged && *flagged >= 0.01) || cut(input, summary, settings);
    return summary;
}

} // namespace ibuki
