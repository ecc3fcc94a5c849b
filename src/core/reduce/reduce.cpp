// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/reduce.h"

#include "core/distributions/summary.h"
#include "core/reduce/ambient.h"
#include "core/reduce/limit.h"
#include "core/reduce/metric_table.h"
#include "core/reduce/phases.h"
#include "core/reduce/steady.h"
#include "core/reduce/thermal_course.h"
#include "core/reduce/trusted_channels.h"
#include "core/series/autocorrelation.h"

#include <algorithm>
#include <cmath>

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
    std::vector<double> metric;     ///< °C
    std::vector<double> response;   ///< ΔT when there is an ambient, else the temperature
    std::size_t longest = 0;        ///< index of the longest load
    std::optional<Phase> foundLoad; ///< of the load whose borders were moved
    MetricSource source() const {
        return {trace, chip, ambient.valuesC,
                settings.ambient ? std::optional(settings.ambient->uncertaintyK) : std::nullopt, stepsK};
    }
    SensorSteps stepsK;
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

/// The segment with its borders at the stated times, inside `within`, at least two samples long.
Segment movedBy(std::span<const double> timeS, Segment segment, std::optional<double> startS,
                std::optional<double> endS, Segment within) {
    const auto indexAt = [&](double time) {
        return static_cast<std::size_t>(std::lower_bound(timeS.begin(), timeS.end(), time) - timeS.begin());
    };
    if (startS) segment.begin = indexAt(*startS);
    if (endS)
        segment.end =
            static_cast<std::size_t>(std::upper_bound(timeS.begin(), timeS.end(), *endS) - timeS.begin());
    segment.begin =
        std::clamp(segment.begin, within.begin, within.end - std::min<std::size_t>(2, within.size()));
    segment.end = std::clamp(segment.end, std::min(segment.begin + 2, within.end), within.end);
    return segment;
}

Phase windowPhase(const Trace& trace, Segment window) {
    return {"window", trace.timeS[window.begin], trace.timeS[window.end - 1]};
}

bool isMeant(const HandMarks& hand, int index, std::size_t longest) {
    return index == (hand.load < 0 ? static_cast<int>(longest) : hand.load);
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

/// W for each K of the chip when power and temperature move together (leakage), minute by minute.
std::optional<double> wattPerKelvin(const Shared& shared, Segment settled,
                                    const std::vector<double>& powerMinutes) {
    const auto chip = blockMeans(std::span(shared.trace.timeS).subspan(settled.begin, settled.size()),
                                 std::span(shared.metric).subspan(settled.begin, settled.size()), 60);
    if (chip.size() != powerMinutes.size() || chip.size() < 5) return {};
    const double meanT = mean(chip);
    const double meanP = mean(powerMinutes);
    double tt = 0;
    double tp = 0;
    double pp = 0;
    for (std::size_t i = 0; i < chip.size(); ++i) {
        tt += (chip[i] - meanT) * (chip[i] - meanT);
        tp += (chip[i] - meanT) * (powerMinutes[i] - meanP);
        pp += (powerMinutes[i] - meanP) * (powerMinutes[i] - meanP);
    }
    if (!(tt > 0) || !(pp > 0) || tp / std::sqrt(tt * pp) < 0.8) return {};
    return tp / tt;
}

void flagMovedPower(LoadReduction& load, double moved, std::optional<double> perKelvin) {
    Fields fields{{"percent", 100 * moved}};
    if (perKelvin) fields.push_back({"wattPerKelvin", *perKelvin});
    addFlag(load.flags,
            makeFlag(Severity::warn, perKelvin ? "power-drift.with-chip" : "power-drift", std::move(fields)));
}

void flagPowerDrift(LoadReduction& load, const Shared& shared, Segment settled) {
    if (shared.power.empty() || settled.size() == 0 || load.limit.censored) return;
    const auto minutes = blockMeans(std::span(shared.trace.timeS).subspan(settled.begin, settled.size()),
                                    std::span(shared.power).subspan(settled.begin, settled.size()), 60);
    if (minutes.size() < 2) return;
    const double moved = rangeOf(minutes) / mean(minutes);
    if (moved > shared.settings.powerDriftShare)
        flagMovedPower(load, moved, wattPerKelvin(shared, settled, minutes));
}

void flagFan(LoadReduction& load, const Shared& shared, Segment settled) {
    const Channel* fan = firstChannel(shared.trace, Role::fan);
    if (!fan || settled.size() == 0) return;
    const auto part = std::span(fan->values).subspan(settled.begin, settled.size());
    const double level = mean(part);
    if (level > 0 && rangeOf(part) > shared.settings.fanRangeShare * level)
        addFlag(load.flags,
                makeFlag(Severity::warn, "fan-varied", {{"percent", 100 * rangeOf(part) / level}}));
}

void addPower(LoadReduction& load, const Shared& shared, Segment window) {
    if (!shared.power.empty()) {
        const double power = timeMean(std::span(shared.trace.timeS).subspan(window.begin, window.size()),
                                      std::span(shared.power).subspan(window.begin, window.size()));
        if (std::isfinite(power)) load.powerW = power;
    }
}

/// What moves beside the temperature where it is held: clock and fan.
void addCompany(LoadReduction& load, const Shared& shared, Segment window) {
    const auto over = [&](std::span<const double> values) -> std::optional<double> {
        if (values.empty()) return std::nullopt;
        const double value = timeMean(std::span(shared.trace.timeS).subspan(window.begin, window.size()),
                                      values.subspan(window.begin, window.size()));
        return std::isfinite(value) ? std::optional(value) : std::nullopt;
    };
    load.clockMHz = over(shared.clock);
    const std::vector<double> fan = valuesOf(firstChannel(shared.trace, Role::fan));
    load.fan = over(fan);
}

/// Once it is settled what the load counts with.
void addResistance(LoadReduction& load, const ReduceSettings& settings) {
    load.rthKPerW = countedRthKPerW(load, load.metric);
    if (load.rthKPerW && settings.nominalPowerW)
        load.deltaAtNominalK = *load.rthKPerW * *settings.nominalPowerW;
}

/// What a tail leads to counts in place of the window's mean, with its wider interval.
void extrapolate(LoadReduction& load, const Shared& shared) {
    if (!shared.settings.useAsymptote || !load.steady.asymptoteK) return;
    load.extrapolated = true;
    const Interval ci =
        load.steady.asymptoteIntervalK.value_or(Interval{*load.steady.asymptoteK, *load.steady.asymptoteK});
    addFlag(load.flags, makeFlag(Severity::warn, "extrapolated",
                                 {{"asymptoteK", *load.steady.asymptoteK}, {"lo", ci.lo}, {"hi", ci.hi}}));
}

/// The window as found, or as the user set it; what was found stays on record.
WindowChoice windowFor(LoadReduction& load, const Shared& shared, Segment segment) {
    const Trace& trace = shared.trace;
    WindowChoice choice = chooseWindow(trace.timeS, shared.response, segment, shared.settings);
    const HandMarks& hand = shared.settings.hand;
    if (!hand.movesWindow() || !isMeant(hand, load.index, shared.longest)) return choice;
    load.foundWindow = windowPhase(trace, choice.window);
    choice.tail.reset();
    choice.window = movedBy(trace.timeS, choice.window, hand.windowStartS, hand.windowEndS, segment);
    const double length = trace.timeS[choice.window.end - 1] - trace.timeS[choice.window.begin];
    choice.isShort = length < 0.95 * shared.settings.windowMinS;
    return choice;
}

/// The tail where its course is known; else the window, with as much again before it.
NoiseStretch noiseStretch(std::span<const double> timeS, Segment load, Segment window,
                          std::optional<double> tauS) {
    const Segment tail = tailOf(timeS, load, window);
    if (tauS && tail.size() > window.size()) return {{std::min(tail.begin, window.begin), window.end}, tauS};
    const std::size_t before = std::min(window.size(), window.begin - std::min(window.begin, tail.begin));
    return {{window.begin - before, window.end}, {}};
}

/// Whether it became steady, and whether it sat at its limit.
void addSteadyFlags(LoadReduction& load, const Shared& shared, bool isShort) {
    if (isShort)
        addFlag(load.flags,
                makeFlag(Severity::warn, "short-window", {{"windowMinS", shared.settings.windowMinS}}));
    if (load.steady.reached && !*load.steady.reached)
        addFlag(load.flags,
                makeFlag(Severity::warn, "not-steady", {{"slopeKPerH", load.steady.slopeKPerH.value_or(0)}}));
    if (shared.ambient.source == AmbientSource::none) {
        load.steady.asymptoteK.reset(); // a rise of the bare temperature says nothing about ΔT
        load.steady.asymptoteIntervalK.reset();
        load.steady.remainingK.reset();
        load.steady.slopeKPerH.reset();
        load.steady.slopeIntervalKPerH.reset();
    }
    if (load.limit.censored) addFlag(load.flags, makeFlag(Severity::warn, "limit-bound"));
    if (load.limit.inferred)
        addFlag(load.flags, makeFlag(Severity::info, "limit-inferred", {{"limitC", *load.limit.limitC}}));
}

LoadReduction reduceLoad(const Shared& shared, const std::vector<Segment>& loads, std::size_t index) {
    const Trace& trace = shared.trace;
    const ReduceSettings& settings = shared.settings;
    LoadReduction load;
    load.index = static_cast<int>(index);
    load.metric = settings.metric;
    load.nominalW = settings.nominalPowerW;
    load.phases = phasesAround(trace, loads, index);
    if (shared.foundLoad && isMeant(settings.hand, load.index, shared.longest))
        load.foundLoad = shared.foundLoad;

    const WindowChoice choice = windowFor(load, shared, loads[index]);
    const Segment window = choice.window;
    load.window = windowPhase(trace, window);
    load.steady = judgeSteady(trace.timeS, shared.response, loads[index], choice, settings);
    load.metrics = metricTable(shared.source(), window,
                               noiseStretch(trace.timeS, loads[index], window, load.steady.tauS));
    load.ambient = summarise(shared.ambient, window);
    if (trace.probe && shared.ambient.source == AmbientSource::probe) {
        load.ambient.probeShiftS = trace.probe->shiftS;
        load.ambient.probeShiftUncertaintyS = trace.probe->uncertaintyS;
    }
    addPower(load, shared, window);
    addCompany(load, shared, window);

    const auto limitFlag = valuesOf(firstChannel(trace, Role::limitFlag));
    load.limit = judgeLimit({trace.timeS, shared.metric, shared.power, shared.clock, limitFlag,
                             shared.stepsK.at(shared.chip.role), loads[index], window},
                            settings);

    addSteadyFlags(load, shared, choice.isShort);
    extrapolate(load, shared);
    addResistance(load, settings);
    if (load.foundWindow || load.foundLoad) addFlag(load.flags, makeFlag(Severity::info, "set-by-hand"));
    const Segment settled = withoutFirstMinute(trace, loads[index]);
    flagAmbientDrift(load.flags, trace, shared.ambient, window, settings);
    flagPowerDrift(load, shared, settled);
    flagFan(load, shared, settled);
    return load;
}

/// A clock that could not be matched matters as much as the room moves.
void addProbeFlags(std::vector<Flag>& flags, const Trace& trace, const Shared& shared) {
    if (trace.probe && trace.probe->cover < 0.8)
        addFlag(flags, makeFlag(Severity::warn, "probe-apart", {{"percent", 100 * trace.probe->cover}}));
    if (!trace.probe || shared.ambient.source != AmbientSource::probe) return;
    if (trace.probe->zoneS != 0)
        addFlag(flags, makeFlag(Severity::warn, "probe-hour", {{"hours", trace.probe->zoneS / 3600}}));
    if (!trace.probe->byHand && trace.probe->uncertaintyS == 0)
        addFlag(flags, makeFlag(rangeOf(shared.ambient.valuesC) > 0.5 ? Severity::warn : Severity::info,
                                "probe-shift-assumed"));
    if (shared.settings.probeLagS)
        addFlag(flags,
                makeFlag(Severity::info, "probe-lag-corrected", {{"probeLagS", *shared.settings.probeLagS}}));
}

std::vector<Flag> logFlags(const Trace& trace, const Shared& shared,
                           const std::vector<const Channel*>& stuck) {
    std::vector<Flag> flags;
    if (shared.ambient.source == AmbientSource::none)
        addFlag(flags, makeFlag(Severity::reject, "ambient-missing"));
    if (trace.axis.gaps > 0)
        addFlag(flags, makeFlag(Severity::warn, "gap-in-log", {{"count", trace.axis.gaps}}));
    if (trace.axis.clockJumps > 0)
        addFlag(flags, makeFlag(Severity::warn, "clock-jump", {{"count", trace.axis.clockJumps}}));
    if (trace.axis.duplicatesDropped > 0)
        addFlag(flags,
                makeFlag(Severity::info, "duplicate-samples", {{"count", trace.axis.duplicatesDropped}}));
    for (const Channel& channel : trace.channels) {
        const bool measured = channel.role != Role::ignore && channel.role != Role::time
                              && channel.role != Role::limitFlag && channel.role != Role::score;
        if (measured && channel.fileUnit == Unit::none)
            addFlag(flags, makeFlag(Severity::info, "unit-assumed", {{"column", channel.column}}));
    }
    if (trace.impossible > 0)
        addFlag(flags,
                makeFlag(trace.impossible * 200 > static_cast<std::int64_t>(trace.samples()) ? Severity::warn
                                                                                             : Severity::info,
                         "impossible-values", {{"count", trace.impossible}}));
    addProbeFlags(flags, trace, shared);
    for (const Channel* channel : stuck)
        addFlag(flags, makeFlag(Severity::warn, "stuck-sensor", {{"column", channel->column}}));
    return flags;
}

std::size_t longestOf(const Trace& trace, const std::vector<Segment>& loads) {
    const auto length = [&](const Segment& load) {
        return trace.timeS[load.end - 1] - trace.timeS[load.begin];
    };
    std::size_t longest = 0;
    for (std::size_t i = 1; i < loads.size(); ++i)
        if (length(loads[i]) > length(loads[longest])) longest = i;
    return longest;
}

/// Moves the borders of the load that is meant; where none was found, both borders make one. Returns the load
/// as it was found.
std::optional<Phase> moveLoad(const Trace& trace, std::vector<Segment>& loads, const HandMarks& hand) {
    if (loads.empty()) {
        if (!hand.loadStartS || !hand.loadEndS) return std::nullopt;
        const Segment all{0, trace.samples()};
        loads.push_back(movedBy(trace.timeS, all, hand.loadStartS, hand.loadEndS, all));
        return std::nullopt;
    }
    const std::size_t index = hand.load < 0 ? longestOf(trace, loads) : static_cast<std::size_t>(hand.load);
    if (index >= loads.size()) return std::nullopt;
    const Phase found{"load", trace.timeS[loads[index].begin],
                      loads[index].end < trace.samples() ? trace.timeS[loads[index].end]
                                                         : trace.timeS.back()};
    const Segment room{index == 0 ? 0 : loads[index - 1].end,
                       index + 1 < loads.size() ? loads[index + 1].begin : trace.samples()};
    loads[index] = movedBy(trace.timeS, loads[index], hand.loadStartS, hand.loadEndS, room);
    return found;
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
    Shared shared{
        trace, settings, chipChannels(trace, stuck), ambientSeries(trace, settings), {}, {}, {}, {}, 0,
        {},    {}};
    shared.stepsK = sensorSteps(trace, shared.chip);
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
    const std::vector<double> utilisation = valuesOf(firstChannel(trace, Role::load));
    auto loads =
        shared.response.empty()
            ? std::vector<Segment>{}
            : findLoads({trace.timeS, shared.power.empty() ? wall : shared.power, shared.power.empty(),
                         shared.metric, shared.ambient.valuesC, utilisation, settings.nominalPowerW},
                        settings.phases);
    if (settings.hand.movesLoad() && !shared.response.empty())
        shared.foundLoad = moveLoad(trace, loads, settings.hand);
    if (loads.empty()) {
        addFlag(result.flags, makeFlag(Severity::reject, "no-load-found"));
        return result;
    }
    const std::size_t longest = shared.longest = longestOf(trace, loads);
    for (std::size_t i = 0; i < loads.size(); ++i) result.loads.push_back(reduceLoad(shared, loads, i));
    result.longest = longest;
    result.hottestC = hottestOf(result.loads);
    const std::size_t before = longest == 0 ? 0 : loads[longest - 1].end;
    if (loads[longest].begin > before) {
        const Segment idle{before, loads[longest].begin};
        result.idle = metricTable(shared.source(), idle, {idle, {}});
    }
    for (const Flag& flag : result.loads[longest].flags) addFlag(result.flags, flag);
    return result;
}

Reduction reduceByEveryMetric(const Trace& trace, const ReduceSettings& settings) {
    Reduction result = reduce(trace, settings);
    result.course = thermalCourse(trace);
    const auto stuck = stuckSensors(trace);
    const ChipChannels chip = chipChannels(trace, stuck);
    for (Metric metric : allMetrics) {
        if (metric == settings.metric || metricSeries(trace, chip, metric).empty()) continue;
        ReduceSettings other = settings;
        other.metric = metric;
        Reduction judged = reduce(trace, other);
        result.others[metric] = {std::move(judged.loads), judged.longest, std::move(judged.flags)};
    }
    return result;
}

} // namespace ibuki
