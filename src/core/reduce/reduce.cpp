// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/reduce.h"

#include "core/reduce/ambient.h"
#include "core/reduce/limit.h"
#include "core/reduce/steady.h"
#include "core/stats/autocorrelation.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

/// Everything that the loads of one trace share.
struct Shared {
    const Trace& trace;
    const ReduceSettings& settings;
    ChipChannels chip;
    AmbientSeries ambient;
    std::vector<double> power; ///< of the metric's device; empty when not logged
    std::vector<double> clock;
    std::vector<double> metric;   ///< °C
    std::vector<double> response; ///< ΔT when there is an ambient, else the temperature
};

std::vector<double> meanAcross(const std::vector<const Channel*>& channels, std::size_t samples) {
    if (channels.empty()) return {};
    std::vector<double> series(samples, 0.0);
    for (const Channel* channel : channels)
        for (std::size_t i = 0; i < samples; ++i) series[i] += channel->values[i];
    for (double& v : series) v /= static_cast<double>(channels.size());
    return series;
}

std::vector<double> valuesOf(const Channel* channel) {
    return channel ? channel->values : std::vector<double>{};
}

const Channel* powerChannel(const Trace& trace, Metric metric) {
    const Channel* package = firstChannel(trace, Role::packagePower);
    const Channel* graphics = firstChannel(trace, Role::gpuPower);
    if (isGraphicsMetric(metric) && graphics) return graphics;
    return package ? package : graphics;
}

double rangeOf(std::span<const double> x) {
    double low = 0;
    double high = 0;
    bool any = false;
    for (double v : x) {
        if (!std::isfinite(v)) continue;
        low = any ? std::min(low, v) : v;
        high = any ? std::max(high, v) : v;
        any = true;
    }
    return high - low;
}

/// Channels that do not move while another of their role moves by more than 5 K.
std::vector<const Channel*> stuckSensors(const Trace& trace) {
    std::vector<const Channel*> stuck;
    for (Role role : {Role::core, Role::memory, Role::vrm}) {
        const auto fellows = channelsOf(trace, role);
        const bool moving = std::any_of(fellows.begin(), fellows.end(),
                                        [](const Channel* c) { return rangeOf(c->values) > 5; });
        for (const Channel* channel : fellows)
            if (moving && rangeOf(channel->values) == 0) stuck.push_back(channel);
    }
    return stuck;
}

/// Smallest step between different readings of the channels: the sensor's resolution as logged.
double sensorStep(const ChipChannels& chip) {
    double step = 0;
    for (const Channel* channel : chip.cores)
        for (std::size_t i = 1; i < channel->values.size(); ++i) {
            const double change = std::abs(channel->values[i] - channel->values[i - 1]);
            if (change > 1e-6 && (step == 0 || change < step)) step = change;
        }
    return step;
}

/// Standard error of a window mean: autocorrelation, and the resolution term of JCGM 100:2008 F.2.2.1 with
/// the dither rule of Widrow & Kollár 2008 (docs/methods.md, "Resolution").
std::optional<double> standardError(std::span<const double> window, double step) {
    std::vector<double> finite;
    for (double v : window)
        if (std::isfinite(v)) finite.push_back(v);
    const auto statistical = meanStandardError(finite);
    if (!statistical) return std::nullopt;
    const double sd = sampleSd(finite).value_or(0);
    const double resolution = sd >= 0.3 * step ? 0.05 * step : 0.5 * step / std::sqrt(3.0);
    return std::hypot(*statistical, resolution);
}

MetricTable metricTable(const Shared& shared, Segment segment) {
    MetricTable table;
    const double step = sensorStep(shared.chip);
    for (Metric metric : allMetrics) {
        const auto temperature = metricOver(shared.trace, shared.chip, metric, segment, {});
        if (!temperature) continue;
        MetricValue value{*temperature, std::nullopt, std::nullopt};
        if (!shared.ambient.valuesC.empty())
            value.deltaK = metricOver(shared.trace, shared.chip, metric, segment, shared.ambient.valuesC);
        std::vector<double> series = metricSeries(shared.trace, shared.chip, metric);
        for (std::size_t i = segment.begin; i < segment.end && !shared.ambient.valuesC.empty(); ++i)
            series[i] -= shared.ambient.valuesC[i];
        value.seK = standardError(std::span(series).subspan(segment.begin, segment.size()), step);
        if (value.seK && shared.settings.ambient)
            value.seK = std::hypot(*value.seK, shared.settings.ambient->uncertaintyK);
        table.emplace(metric, value);
    }
    return table;
}

std::vector<Phase> phasesAround(const Trace& trace, const std::vector<Segment>& loads, std::size_t index) {
    const Segment load = loads[index];
    const std::size_t before = index == 0 ? 0 : loads[index - 1].end;
    const std::size_t after = index + 1 < loads.size() ? loads[index + 1].begin : trace.samples();
    std::vector<Phase> phases;
    if (load.begin > before) phases.push_back({"idle", trace.timeS[before], trace.timeS[load.begin]});
    const double endS = load.end < trace.samples() ? trace.timeS[load.end] : trace.timeS.back();
    phases.push_back({"load", trace.timeS[load.begin], endS});
    if (after > load.end) phases.push_back({"cooldown", endS, trace.timeS[after - 1]});
    return phases;
}

Segment withoutFirstMinute(const Trace& trace, Segment load) {
    std::size_t begin = load.begin;
    while (begin < load.end && trace.timeS[begin] - trace.timeS[load.begin] < 60) ++begin;
    return {begin, load.end};
}

void flagPowerDrift(LoadReduction& load, const Shared& shared, Segment settled) {
    if (shared.power.empty() || settled.size() == 0 || load.limit.bound) return;
    const auto minutes = blockMeans(std::span(shared.trace.timeS).subspan(settled.begin, settled.size()),
                                    std::span(shared.power).subspan(settled.begin, settled.size()), 60);
    if (minutes.size() < 2) return;
    const double moved = rangeOf(minutes) / mean(minutes);
    if (moved > shared.settings.powerDriftShare)
        raise(load.flags, {"power-drift", Severity::warn,
                           fmt::format("Power moved by {:.1f} % during the load", 100 * moved)});
}

void flagFan(LoadReduction& load, const Shared& shared, Segment settled) {
    const Channel* fan = firstChannel(shared.trace, Role::fan);
    if (!fan || settled.size() == 0) return;
    const auto part = std::span(fan->values).subspan(settled.begin, settled.size());
    const double level = mean(part);
    if (level > 0 && rangeOf(part) > shared.settings.fanRangeShare * level)
        raise(load.flags,
              {"fan-varied", Severity::warn,
               fmt::format("The fan moved by {:.0f} % of its speed: the difference seen is smaller "
                           "than the true one",
                           100 * rangeOf(part) / level)});
}

void addPowerFigures(LoadReduction& load, const Shared& shared, Segment window) {
    if (!shared.power.empty()) {
        const double power = timeMean(std::span(shared.trace.timeS).subspan(window.begin, window.size()),
                                      std::span(shared.power).subspan(window.begin, window.size()));
        if (std::isfinite(power)) load.powerW = power;
    }
    const auto value = load.metrics.find(shared.settings.metric);
    if (!load.powerW || *load.powerW <= 0 || value == load.metrics.end() || !value->second.deltaK) return;
    load.rthKPerW = *value->second.deltaK / *load.powerW;
    if (shared.settings.nominalPowerW) load.deltaAtNominalK = *load.rthKPerW * *shared.settings.nominalPowerW;
}

LoadReduction reduceLoad(const Shared& shared, const std::vector<Segment>& loads, std::size_t index) {
    const Trace& trace = shared.trace;
    const ReduceSettings& settings = shared.settings;
    LoadReduction load;
    load.index = static_cast<int>(index);
    load.nominalW = settings.nominalPowerW;
    load.phases = phasesAround(trace, loads, index);

    const WindowChoice choice = chooseWindow(trace.timeS, shared.response, loads[index], settings);
    const Segment window = choice.window;
    load.window = Phase{"window", trace.timeS[window.begin], trace.timeS[window.end - 1]};
    load.metrics = metricTable(shared, window);
    load.steady = judgeSteady(trace.timeS, shared.response, loads[index], choice, settings);
    load.ambient = summarise(shared.ambient, window);
    addPowerFigures(load, shared, window);

    const auto limitFlag = valuesOf(firstChannel(trace, Role::limitFlag));
    load.limit = judgeLimit({trace.timeS, shared.metric, shared.power, shared.clock, limitFlag,
                             sensorStep(shared.chip), loads[index], window},
                            settings);

    if (choice.isShort)
        raise(load.flags, {"short-window", Severity::warn,
                           fmt::format("The load is shorter than {:.0f} s", settings.windowMinS)});
    if (load.steady.reached && !*load.steady.reached)
        raise(load.flags, {"not-steady", Severity::warn,
                           fmt::format("Still changing by {:.1f} K per hour when the load ended",
                                       load.steady.slopeKPerH.value_or(0))});
    if (shared.ambient.source == AmbientSource::none) {
        load.steady.asymptoteK.reset(); // a rise of the bare temperature says nothing about ΔT
        load.steady.asymptoteIntervalK.reset();
        load.steady.remainingK.reset();
        load.steady.slopeKPerH.reset();
        load.steady.slopeIntervalKPerH.reset();
    }
    if (load.limit.bound)
        raise(load.flags,
              {"limit-bound", Severity::warn,
               "The chip sat at its temperature limit: its difference over room is at least this"});
    const Segment settled = withoutFirstMinute(trace, loads[index]);
    flagAmbientDrift(load.flags, trace, shared.ambient, window, settings);
    flagPowerDrift(load, shared, settled);
    flagFan(load, shared, settled);
    return load;
}

std::vector<Flag> logFlags(const Trace& trace, const Shared& shared,
                           const std::vector<const Channel*>& stuck) {
    std::vector<Flag> flags;
    if (shared.ambient.source == AmbientSource::none)
        raise(flags, {"ambient-missing", Severity::reject,
                      "No room temperature: neither a column nor an entered value"});
    if (trace.axis.gaps > 0)
        raise(flags, {"gap-in-log", Severity::warn, fmt::format("{} gaps in the log", trace.axis.gaps)});
    if (trace.axis.clockJumps > 0)
        raise(flags,
              {"clock-jump", Severity::warn,
               fmt::format("The logger's clock was set {} times and put right", trace.axis.clockJumps)});
    if (trace.axis.duplicatesDropped > 0)
        raise(flags, {"duplicate-samples", Severity::info,
                      fmt::format("{} repeated rows were dropped", trace.axis.duplicatesDropped)});
    for (const Channel& channel : trace.channels) {
        const bool measured = channel.role != Role::ignore && channel.role != Role::time
                              && channel.role != Role::limitFlag && channel.role != Role::score;
        if (measured && channel.fileUnit == Unit::none)
            raise(flags,
                  {"unit-assumed", Severity::info,
                   fmt::format("No unit in the header \"{}\": taken as the usual one", channel.column)});
    }
    for (const Channel* channel : stuck)
        raise(flags, {"stuck-sensor", Severity::warn,
                      fmt::format("\"{}\" never moves and is left out", channel->column)});
    return flags;
}

} // namespace

Reduction reduce(const Trace& trace, const ReduceSettings& settings) {
    Reduction result;
    result.metric = settings.metric;
    result.samples = trace.samples();
    result.durationS = trace.durationS();
    result.intervalS = medianIntervalS(trace);
    for (const Channel& channel : trace.channels)
        result.channels.push_back({channel.column, channel.role, channel.index, channel.fileUnit});

    const auto stuck = stuckSensors(trace);
    Shared shared{trace, settings, chipChannels(trace, stuck), ambientSeries(trace, settings), {}, {},
                  {},    {}};
    shared.power = valuesOf(powerChannel(trace, settings.metric));
    shared.clock = meanAcross(
        channelsOf(trace, isGraphicsMetric(settings.metric) ? Role::gpuClock : Role::clock), trace.samples());
    shared.metric = metricSeries(trace, shared.chip, settings.metric);
    if (shared.metric.empty()) shared.metric = metricSeries(trace, shared.chip, Metric::hottest);
    shared.response = shared.metric;
    for (std::size_t i = 0; i < shared.response.size() && !shared.ambient.valuesC.empty(); ++i)
        shared.response[i] -= shared.ambient.valuesC[i];

    result.flags = logFlags(trace, shared, stuck);
    const std::vector<double> wall = valuesOf(firstChannel(trace, Role::wallPower));
    const auto loads = shared.response.empty()
                           ? std::vector<Segment>{}
                           : findLoads(trace.timeS, shared.power.empty() ? wall : shared.power, shared.metric,
                                       settings.phases);
    if (loads.empty()) {
        raise(result.flags, {"no-load-found", Severity::reject, "No stretch of load was found in the log"});
        return result;
    }
    std::size_t longest = 0;
    const auto length = [&](std::size_t i) {
        return trace.timeS[loads[i].end - 1] - trace.timeS[loads[i].begin];
    };
    for (std::size_t i = 0; i < loads.size(); ++i) {
        result.loads.push_back(reduceLoad(shared, loads, i));
        if (length(i) > length(longest)) longest = i;
    }
    result.longest = longest;
    const std::size_t before = longest == 0 ? 0 : loads[longest - 1].end;
    if (loads[longest].begin > before) result.idle = metricTable(shared, {before, loads[longest].begin});
    for (const Flag& flag : result.loads[longest].flags) raise(result.flags, flag);
    return result;
}

} // namespace ibuki
