// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/metric.h"
#include "core/base/nan.h"

#include "core/distributions/summary.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace ibuki {
namespace {

/// Highest (or mean) of the channels at each sample of the segment, NaN where none has a value.
std::vector<double> across(std::span<const Channel* const> channels, Segment segment, bool highest) {
    if (channels.empty()) return {};
    std::vector<double> series(segment.size(), nan);
    for (std::size_t i = segment.begin; i < segment.end; ++i) {
        double best = nan;
        double sum = 0;
        int count = 0;
        for (const Channel* channel : channels) {
            const double v = channel->values[i];
            if (!std::isfinite(v)) continue;
            best = count == 0 ? v : std::max(best, v);
            sum += v;
            ++count;
        }
        if (count > 0) series[i - segment.begin] = highest ? best : sum / count;
    }
    return series;
}

std::vector<double> lessAmbient(std::span<const double> x, Segment segment, std::span<const double> ambient) {
    std::vector<double> part;
    part.reserve(segment.size());
    for (std::size_t i = segment.begin; i < segment.end; ++i)
        part.push_back(ambient.empty() ? x[i] : x[i] - ambient[i]);
    return part;
}

std::vector<double> finiteOnly(std::vector<double> x) {
    std::erase_if(x, [](double v) { return !std::isfinite(v); });
    return x;
}

} // namespace

std::optional<Role> roleOf(Metric metric) {
    switch (metric) {
    case Metric::package:
        return Role::package;
    case Metric::hotspot:
        return Role::hotspot;
    case Metric::gpu:
        return Role::gpu;
    case Metric::memory:
        return Role::memory;
    case Metric::vrm:
        return Role::vrm;
    case Metric::coolant:
        return Role::coolant;
    default:
        return std::nullopt;
    }
}

ChipChannels chipChannels(const Trace& trace, std::span<const Channel* const> stuck) {
    ChipChannels chip;
    for (Role role : {Role::core, Role::package, Role::gpu}) {
        for (const Channel* channel : channelsOf(trace, role))
            if (std::find(stuck.begin(), stuck.end(), channel) == stuck.end()) chip.cores.push_back(channel);
        if (chip.cores.empty()) continue;
        chip.role = role;
        chip.coresAreReal = role == Role::core;
        break;
    }
    return chip;
}

std::vector<double> metricSeries(const Trace& trace, const ChipChannels& chip, Metric metric,
                                 Segment segment) {
    if (const auto role = roleOf(metric)) return across(channelsOf(trace, *role), segment, true);
    if ((metric == Metric::coreAverage || metric == Metric::coreMaxima) && !chip.coresAreReal) return {};
    return across(chip.cores, segment, metric != Metric::coreAverage);
}

std::vector<double> metricSeries(const Trace& trace, const ChipChannels& chip, Metric metric) {
    return metricSeries(trace, chip, metric, {0, trace.samples()});
}

std::optional<double> metricOver(const Trace& trace, const ChipChannels& chip, Metric metric, Segment segment,
                                 std::span<const double> ambient) {
    if (segment.size() == 0) return std::nullopt;
    if (metric == Metric::coreMaxima && chip.coresAreReal) {
        std::vector<double> maxima;
        for (const Channel* core : chip.cores) {
            const auto part = finiteOnly(lessAmbient(core->values, segment, ambient));
            if (!part.empty()) maxima.push_back(*std::max_element(part.begin(), part.end()));
        }
        if (maxima.empty()) return std::nullopt;
        return mean(maxima);
    }
    auto part = metricSeries(trace, chip, metric, segment);
    if (part.empty()) return std::nullopt;
    for (std::size_t i = 0; i < part.size() && !ambient.empty(); ++i) part[i] -= ambient[segment.begin + i];
    const auto finite = finiteOnly(part);
    if (finite.empty()) return std::nullopt;
    if (metric == Metric::peak) return *std::max_element(finite.begin(), finite.end());
    if (metric == Metric::p95) return quantile(finite, 0.95);
    return timeMean(std::span(trace.timeS).subspan(segment.begin, segment.size()), part);
}

double timeMean(std::span<const double> timeS, std::span<const double> x) {
    std::vector<double> t;
    std::vector<double> v;
    for (std::size_t i = 0; i < x.size(); ++i) {
        if (!std::isfinite(x[i])) continue;
        t.push_back(timeS[i]);
        v.push_back(x[i]);
    }
    if (v.size() < 3) return mean(v);
    std::vector<double> steps;
    for (std::size_t i = 1; i < t.size(); ++i) steps.push_back(t[i] - t[i - 1]);
    const double typical = median(steps);
    if (*std::max_element(steps.begin(), steps.end()) <= 1.5 * typical) return mean(v);
    double area = 0;
    double covered = 0;
    for (std::size_t i = 1; i < t.size(); ++i) {
        if (steps[i - 1] > 5 * typical) continue;
        area += steps[i - 1] * 0.5 * (v[i] + v[i - 1]);
        covered += steps[i - 1];
    }
    return covered > 0 ? area / covered : mean(v);
}

} // namespace ibuki
