// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/metric_table.h"

#include "core/distributions/summary.h"
#include "core/series/autocorrelation.h"
#include "core/series/detrend.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

/// Smallest step between different readings of the channels: the sensor's resolution as logged.
double sensorStep(const std::vector<const Channel*>& channels) {
    double step = 0;
    for (const Channel* channel : channels)
        for (std::size_t i = 1; i < channel->values.size(); ++i) {
            const double change = std::abs(channel->values[i] - channel->values[i - 1]);
            if (change > 1e-6 && (step == 0 || change < step)) step = change;
        }
    return step;
}

/// The resolution term of JCGM 100:2008 F.2.2.1 with the dither rule of Widrow & Kollár 2008
/// (docs/methods.md, "Resolution"), as a standard deviation. Each channel is judged by its own noise: where
/// that carries it across its steps, so does it the average, however calm that looks. Channels of one kind
/// may share their bias.
double resolutionTerm(const std::vector<const Channel*>& channels, Segment window, double step) {
    double sum = 0;
    int count = 0;
    for (const Channel* channel : channels) {
        std::vector<double> finite;
        for (std::size_t i = window.begin; i < window.end; ++i)
            if (std::isfinite(channel->values[i])) finite.push_back(channel->values[i]);
        const auto sd = sampleSd(finite);
        if (!sd) continue;
        sum += *sd >= 0.3 * step ? 0.05 * step : 0.5 * step / std::sqrt(3.0);
        ++count;
    }
    return count ? sum / count : 0;
}

/// Standard error of a window mean from its correlated noise, as the whole stretch shows it.
std::optional<double> standardError(std::span<const double> timeS, std::span<const double> series,
                                    Segment window, const NoiseStretch& stretch) {
    const auto part = [&](std::span<const double> x, Segment s) { return x.subspan(s.begin, s.size()); };
    std::size_t finite = 0;
    for (double v : part(series, window))
        if (std::isfinite(v)) ++finite;
    if (finite < 2) return std::nullopt;
    const Residuals residuals =
        detrended(part(timeS, stretch.segment), part(series, stretch.segment), stretch.tauS);
    const auto noise = noiseLevel(residuals.values, residuals.course);
    return noise ? meanStandardError(*noise, std::max<std::size_t>(1, finite / residuals.block)) : 0.0;
}

/// The channels whose resolution a metric's mean carries: all that it averages, else the hottest.
std::vector<const Channel*> resolvedBy(const MetricSource& source, Metric metric, Segment window) {
    const auto own = roleOf(metric);
    std::vector<const Channel*> channels = own ? channelsOf(source.trace, *own) : source.chip.cores;
    if (channels.size() < 2 || metric == Metric::coreAverage || metric == Metric::coreMaxima) return channels;
    const auto warmth = [&](const Channel* channel) {
        const auto part = std::span(channel->values).subspan(window.begin, window.size());
        const double all = timeMean(std::span(source.trace.timeS).subspan(window.begin, window.size()), part);
        return std::isfinite(all) ? all : -std::numeric_limits<double>::infinity();
    };
    const Channel* hottest = channels.front();
    for (const Channel* channel : channels)
        if (warmth(channel) > warmth(hottest)) hottest = channel;
    return {hottest};
}

} // namespace

SensorSteps sensorSteps(const Trace& trace, const ChipChannels& chip) {
    SensorSteps steps;
    for (const Channel& channel : trace.channels)
        if (isTemperature(channel.role) && !steps.contains(channel.role))
            steps[channel.role] = sensorStep(channelsOf(trace, channel.role));
    steps[chip.role] = sensorStep(chip.cores);
    return steps;
}

MetricTable metricTable(const MetricSource& source, Segment segment, const NoiseStretch& stretch) {
    MetricTable table;
    const Segment seen{std::min(stretch.segment.begin, segment.begin), segment.end};
    const auto within = [&](Segment one) { return Segment{one.begin - seen.begin, one.end - seen.begin}; };
    const auto timeS = std::span(source.trace.timeS).subspan(seen.begin, seen.size());
    for (Metric metric : allMetrics) {
        const auto temperature = metricOver(source.trace, source.chip, metric, segment, {});
        if (!temperature) continue;
        MetricValue value{*temperature, std::nullopt, std::nullopt};
        if (!source.ambientC.empty())
            value.deltaK = metricOver(source.trace, source.chip, metric, segment, source.ambientC);
        std::vector<double> series = metricSeries(source.trace, source.chip, metric, seen);
        for (std::size_t i = 0; i < series.size() && !source.ambientC.empty(); ++i)
            series[i] -= source.ambientC[seen.begin + i];
        value.seK = standardError(timeS, series, within(segment), {within(stretch.segment), stretch.tauS});
        const Role role = roleOf(metric).value_or(source.chip.role);
        if (value.seK)
            value.seK = std::hypot(*value.seK, resolutionTerm(resolvedBy(source, metric, segment), segment,
                                                              source.stepsK.at(role)));
        if (value.seK && source.enteredUncertaintyK)
            value.seK = std::hypot(*value.seK, *source.enteredUncertaintyK);
        table.emplace(metric, value);
    }
    return table;
}

} // namespace ibuki
