// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/check_up.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "core/distributions/summary.h"
#include "core/domain/lookup.h"
#include "core/reduce/ambient.h"
#include "core/reduce/metric.h"
#include "core/reduce/reduce.h"
#include "core/series/tail_fit.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace ibuki {
namespace {

constexpr double typicalPowerW = 150;
constexpr double restS = 180; ///< of the end of the idle stretch
constexpr std::size_t leastRest = 30;
constexpr double fastPartS = 45; ///< of die, lid and plate, left out of the tail
constexpr double meanOverS = 5;
constexpr double finestK = 1e-6;

struct Stretch {
    double fromS = 0;
    double toS = 0;
};

std::vector<double> valuesIn(const Trace& trace, const std::vector<double>& values, const Stretch& stretch) {
    std::vector<double> inside;
    for (std::size_t i = 0; i < std::min(values.size(), trace.timeS.size()); ++i)
        if (trace.timeS[i] >= stretch.fromS && trace.timeS[i] < stretch.toS && std::isfinite(values[i]))
            inside.push_back(values[i]);
    return inside;
}

/// From neighbours, so that a slow drift is no noise: √(½ mean of squared differences) (von Neumann 1941).
std::optional<double> noiseOf(const std::vector<double>& values) {
    if (values.size() < leastRest) return std::nullopt;
    double sum = 0;
    for (std::size_t i = 1; i < values.size(); ++i) sum += std::pow(values[i] - values[i - 1], 2);
    return std::sqrt(sum / 2 / static_cast<double>(values.size() - 1));
}

/// The smallest step between values that occur, where all are whole numbers of it.
std::optional<double> resolutionOf(const std::vector<double>& values) {
    std::set<double> distinct;
    for (double value : values)
        if (std::isfinite(value)) distinct.insert(value);
    if (distinct.size() < 3) return std::nullopt;
    double step = 1e300;
    for (auto at = std::next(distinct.begin()); at != distinct.end(); ++at)
        step = std::min(step, *at - *std::prev(at));
    if (step < finestK) return std::nullopt;
    for (double value : distinct) {
        const double steps = (value - *distinct.begin()) / step;
        if (std::abs(steps - std::round(steps)) > 0.05) return std::nullopt;
    }
    return step;
}

std::optional<Phase> longestLoad(const Trace& trace) {
    try {
        const Reduction reduction = reduce(trace, {});
        if (!reduction.longest) return std::nullopt;
        return loadPhase(reduction.loads[*reduction.longest]);
    } catch (const InputError&) { // no temperature, no time: nothing to be told
    }
    return std::nullopt;
}

/// Time constant of what is left to rise, through means of five seconds.
std::optional<double> slowestS(const Trace& trace, const Phase& load) {
    auto series = metricSeries(trace, chipChannels(trace, {}), Metric::hottest);
    const AmbientSeries room = ambientSeries(trace, {});
    if (room.valuesC.size() == series.size())
        for (std::size_t i = 0; i < series.size(); ++i) series[i] -= room.valuesC[i];
    std::vector<double> t;
    std::vector<double> x;
    for (double at = load.startS + fastPartS; at + meanOverS <= load.endS; at += meanOverS) {
        const auto values = valuesIn(trace, series, {at, at + meanOverS});
        if (values.empty()) continue;
        t.push_back(at + meanOverS / 2 - load.startS);
        x.push_back(mean(values));
    }
    const auto tail = fitCorrelatedTail(t, x);
    return tail && tail->identified ? std::optional(tail->tau) : std::nullopt;
}

void addOffsets(CheckUp& checked, const Trace& trace, const Stretch& rest) {
    std::vector<std::pair<CheckedChannel*, double>> cores;
    double sum = 0;
    for (CheckedChannel& channel : checked.channels) {
        if (channel.role != Role::core) continue;
        for (const Channel* stored : channelsOf(trace, Role::core))
            if (stored->index == channel.index)
                if (const auto values = valuesIn(trace, stored->values, rest); values.size() >= leastRest) {
                    cores.emplace_back(&channel, mean(values));
                    sum += cores.back().second;
                }
    }
    if (cores.size() < 2) return;
    for (const auto& [channel, mean] : cores)
        channel->offsetK = mean - sum / static_cast<double>(cores.size());
}

std::optional<double> gradientOf(const Trace& trace, const Stretch& rest) {
    double lo = 1e300;
    double hi = -1e300;
    int probes = 0;
    for (const Channel* probe : channelsOf(trace, Role::ambient)) {
        const auto values = valuesIn(trace, probe->values, rest);
        if (values.empty()) continue;
        lo = std::min(lo, mean(values));
        hi = std::max(hi, mean(values));
        ++probes;
    }
    return probes >= 2 ? std::optional((hi - lo) / 2) : std::nullopt;
}

} // namespace

std::vector<StepOccurrence> checkUpSteps(const std::string& load, double powerW) {
    const auto step = [](StepKind kind, double minutes) {
        StepOccurrence made;
        made.kind = kind;
        made.minutes = minutes;
        return made;
    };
    const auto underLoad = [&](StepKind kind, double minutes) {
        StepOccurrence made = step(kind, minutes);
        made.load = load;
        made.powerW = powerW;
        return made;
    };
    StepOccurrence soak = underLoad(StepKind::soak, 60);
    soak.gate = GateKind::remainingBelow;
    soak.gateValue = 0.1;
    soak.leastMinutes = 10;
    return {step(StepKind::idle, 5), soak, underLoad(StepKind::measure, 3), step(StepKind::cool, 5)};
}

double checkUpPowerW(const Document& document, Id<Bench> bench) {
    double most = 0;
    for (const Study* study : document.where(&Study::bench, bench))
        for (const Load* load : loadsOf(document, study->id))
            if (load->target) most = std::max(most, load->target->value);
    return most > 0 ? most : typicalPowerW;
}

CheckUp checkUpOf(const Trace& trace) {
    CheckUp checked;
    const auto load = longestLoad(trace);
    const double restEnd = load ? load->startS - 5 : trace.durationS();
    const Stretch rest{std::max(0.0, restEnd - restS), restEnd};
    for (const Channel& channel : trace.channels) {
        if (!isTemperature(channel.role)) continue;
        CheckedChannel one{channel.column, channel.role, channel.index, {}, {}, {}};
        one.noiseK = noiseOf(valuesIn(trace, channel.values, rest));
        one.resolutionK = resolutionOf(channel.values);
        checked.channels.push_back(std::move(one));
    }
    addOffsets(checked, trace, rest);
    checked.ambientGradientK = gradientOf(trace, rest);
    if (!load) {
        checked.doubts.push_back({"check-no-load", {}});
        return checked;
    }
    if (load->startS < restS) checked.doubts.push_back({"check-short-rest", {{"seconds", load->startS}}});
    if (const auto slowest = slowestS(trace, *load))
        checked.slowestMinutes = *slowest / 60;
    else
        checked.doubts.push_back({"check-no-tail", {}});
    if (!checked.ambientGradientK) checked.doubts.push_back({"check-one-room", {}});
    return checked;
}

void putCheckUp(Edit& edit, Id<Bench> bench, const CheckUp& checked) {
    const Configuration* current = currentConfiguration(edit.document(), bench);
    if (!current) return;
    Configuration configuration = *current;
    if (checked.slowestMinutes) configuration.slowestMinutes = checked.slowestMinutes;
    if (checked.ambientGradientK) configuration.ambientGradient = Kelvin{*checked.ambientGradientK};
    edit.put(configuration);
    for (const CheckedChannel& channel : checked.channels) {
        Sensor sensor;
        for (const Sensor* there : edit.document().where(&Sensor::configuration, configuration.id))
            if (there->role == channel.role && there->index == channel.index) sensor = *there;
        sensor.configuration = configuration.id;
        sensor.role = channel.role;
        sensor.index = channel.index;
        if (sensor.column.empty()) sensor.column = channel.column;
        if (channel.noiseK) sensor.noise = Kelvin{*channel.noiseK};
        if (channel.resolutionK) sensor.resolution = Kelvin{*channel.resolutionK};
        if (channel.offsetK) sensor.offset = Kelvin{*channel.offsetK};
        if (sensor.id.value > 0)
            edit.put(sensor);
        else
            edit.add(sensor);
    }
}

} // namespace ibuki
