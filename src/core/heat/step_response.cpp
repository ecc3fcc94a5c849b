// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/step_response.h"

#include "core/distributions/summary.h"
#include "core/reduce/ambient.h"
#include "core/reduce/metric_table.h"
#include "core/reduce/trusted_channels.h"
#include "core/series/straight_line.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double restS = 60;         ///< of the rest before a step, at most
constexpr std::size_t leastRest = 4; ///< samples
constexpr double plateauS = 10;      ///< over which the power after the step is taken
constexpr std::size_t leastPlateau = 5;
constexpr double rampShare = 0.1;    ///< of the step, that the power may move by over the plateau
constexpr double steadyShare = 0.05; ///< that it may lie beside it later
constexpr double restSlopeKPerS = 2.0 / 60;
constexpr double leastStepW = 10;

/// Samples of the trace where all three are numbers.
struct Seen {
    std::vector<double> timeS, chipC, powerW, ambientC; ///< ambientC: 0 where it is not known
};

Seen seenOf(const Trace& trace, std::span<const double> chip, std::span<const double> power,
            std::span<const double> room) {
    Seen seen;
    for (std::size_t i = 0; i < trace.samples(); ++i) {
        if (!std::isfinite(chip[i]) || !std::isfinite(power[i])) continue;
        if (!room.empty() && !std::isfinite(room[i])) continue;
        seen.timeS.push_back(trace.timeS[i]);
        seen.chipC.push_back(chip[i]);
        seen.powerW.push_back(power[i]);
        seen.ambientC.push_back(room.empty() ? 0 : room[i]);
    }
    return seen;
}

std::size_t indexAt(const Seen& seen, double timeS) {
    return static_cast<std::size_t>(std::lower_bound(seen.timeS.begin(), seen.timeS.end(), timeS)
                                    - seen.timeS.begin());
}

std::span<const double> part(const std::vector<double>& x, std::size_t begin, std::size_t end) {
    return std::span(x).subspan(begin, end - begin);
}

/// The samples of a step.
struct Step {
    std::size_t restBegin = 0, restEnd = 0;
    std::size_t plateauBegin = 0, plateauEnd = 0;
    double beforeW = 0, afterW = 0;
    double startS = 0;
};

/// When the power had half its rise, between the samples on both sides: the step that a unit step correlates
/// best with.
double halfRiseS(const Seen& seen, const Step& step, std::size_t edge) {
    const double half = 0.5 * (step.beforeW + step.afterW);
    const std::size_t from = edge > 2 ? edge - 2 : 1;
    for (std::size_t i = std::max<std::size_t>(from, 1); i < seen.timeS.size() && i < edge + 3; ++i)
        if (seen.powerW[i - 1] < half && seen.powerW[i] >= half) {
            const double share = (half - seen.powerW[i - 1]) / (seen.powerW[i] - seen.powerW[i - 1]);
            return seen.timeS[i - 1] + share * (seen.timeS[i] - seen.timeS[i - 1]);
        }
    return edge > 0 ? 0.5 * (seen.timeS[edge - 1] + seen.timeS[edge]) : seen.timeS[edge];
}

std::optional<Message> findStep(const Seen& seen, double edgeS, double intervalS, Step& step) {
    const std::size_t edge = indexAt(seen, edgeS);
    if (edge >= seen.timeS.size()) return Message{"transient-no-step", {}};
    // A sample beside the edge may lie on it.
    step.restEnd = edge > 1 ? edge - 1 : 0;
    step.restBegin = indexAt(seen, edgeS - restS);
    if (step.restEnd < step.restBegin + leastRest) return Message{"transient-no-rest", {}};
    step.plateauBegin = edge + 1;
    step.plateauEnd = std::max(indexAt(seen, edgeS + plateauS), step.plateauBegin + leastPlateau);
    step.plateauEnd = std::min(step.plateauEnd, seen.timeS.size());
    if (step.plateauEnd < step.plateauBegin + leastPlateau
        || seen.timeS[step.plateauEnd - 1] - edgeS > plateauS + 10 * intervalS)
        return Message{"transient-no-step", {}};
    step.beforeW = median(part(seen.powerW, step.restBegin, step.restEnd));
    const auto plateau = part(seen.powerW, step.plateauBegin, step.plateauEnd);
    step.afterW = mean(plateau);
    if (step.afterW - step.beforeW < leastStepW) return Message{"transient-no-step", {}};
    // Means of its thirds: one sample's noise is no ramp.
    const std::size_t third = plateau.size() / 3 + 1;
    const double moved = mean(plateau.last(third)) - mean(plateau.first(third));
    const double ramp = std::abs(moved) / (step.afterW - step.beforeW);
    if (ramp > rampShare) return Message{"transient-ramp", {{"percent", 100 * ramp}}};
    step.startS = halfRiseS(seen, step, edge);
    return {};
}

/// Seconds after the start until the power, as a mean of a few samples, has left the step's level.
double steadyAfter(const Seen& seen, const Step& step) {
    constexpr std::size_t few = 5;
    for (std::size_t i = step.plateauBegin; i + few <= seen.timeS.size(); ++i) {
        const double beside = std::abs(mean(part(seen.powerW, i, i + few)) - step.afterW);
        if (beside > steadyShare * (step.afterW - step.beforeW))
            return std::max(0.0, seen.timeS[i] - step.startS);
    }
    return seen.timeS.back() - step.startS;
}

} // namespace

StepResponse stepResponseOf(const Trace& trace, const ReduceSettings& settings, const Phase& load) {
    StepResponse response;
    response.intervalS = medianIntervalS(trace);
    const auto refuse = [&](Message why) {
        response.reason = std::move(why);
        return response;
    };
    const auto stuck = stuckSensors(trace);
    const ChipChannels chip = chipChannels(trace, stuck);
    const Channel* power = powerChannel(trace, settings.metric);
    const std::vector<double> metric = metricSeries(trace, chip, settings.metric);
    if (!power || power->values.size() != trace.samples()) return refuse({"transient-no-power", {}});
    if (metric.empty()) return refuse({"transient-no-metric", {}});
    const AmbientSeries room = ambientSeries(trace, settings);
    response.isAmbientKnown = !room.valuesC.empty();
    const SensorSteps steps = sensorSteps(trace, chip);
    if (const auto at = steps.find(chip.role); at != steps.end()) response.sensorStepK = at->second;

    const Seen seen = seenOf(trace, metric, power->values, room.valuesC);
    Step step;
    if (auto why = findStep(seen, load.startS, response.intervalS, step)) return refuse(std::move(*why));
    const auto restTimes = part(seen.timeS, step.restBegin, step.restEnd);
    const auto restC = part(seen.chipC, step.restBegin, step.restEnd);
    const StraightLine rest(restTimes, restC);
    if (std::abs(rest.slope()) > restSlopeKPerS)
        return refuse({"transient-unrested", {{"kelvinPerMinute", 60 * rest.slope()}}});
    const double chipBefore = mean(restC);
    const double ambientBefore = mean(part(seen.ambientC, step.restBegin, step.restEnd));
    response.noiseK = std::max(std::sqrt(rest.rss() / rest.df()), response.sensorStepK / std::sqrt(12.0));
    response.stepW = step.afterW - step.beforeW;
    response.steadyS = steadyAfter(seen, step);
    for (std::size_t i = 0; i < seen.timeS.size(); ++i) {
        const double after = seen.timeS[i] - step.startS;
        if (!(after > 0) || seen.timeS[i] > load.endS) continue;
        response.curve.timeS.push_back(after);
        response.curve.kPerW.push_back((seen.chipC[i] - chipBefore - (seen.ambientC[i] - ambientBefore))
                                       / response.stepW);
    }
    return response;
}

namespace {

/// First sample at or after that time, with one before it; nothing beyond what was seen.
std::optional<std::size_t> after(const StepResponse& response, double timeS) {
    const auto& times = response.curve.timeS;
    const auto at = std::lower_bound(times.begin(), times.end(), timeS);
    if (response.reason || at == times.begin() || at == times.end() || timeS > response.steadyS) return {};
    return static_cast<std::size_t>(at - times.begin());
}

} // namespace

std::optional<double> impedanceAt(const StepResponse& response, double timeS) {
    const auto at = after(response, timeS);
    if (!at) return {};
    const auto& [times, z] = response.curve;
    const double share = (timeS - times[*at - 1]) / (times[*at] - times[*at - 1]);
    return z[*at - 1] + share * (z[*at] - z[*at - 1]);
}

std::optional<double> slopeAt(const StepResponse& response, double timeS) {
    const auto before = impedanceAt(response, 0.6 * timeS), later = impedanceAt(response, 1.4 * timeS);
    if (!before || !later) return {};
    return (*later - *before) / (0.8 * timeS);
}

double startUncertaintyS(const StepResponse& response) { return response.intervalS / std::sqrt(12.0); }

TransientSight sightOf(const StepResponse& response) {
    // A clock of whole milliseconds is one of a millisecond.
    const auto within = [&](double interval) { return response.intervalS <= interval * (1 + 1e-6); };
    if (within(layersIntervalS) && response.noiseK <= layersNoiseK) return TransientSight::layers;
    if (within(jointIntervalS) && response.sensorStepK <= jointStepK) return TransientSight::joint;
    return TransientSight::sum;
}

LayersSeen layersOf(const StepResponse& response) {
    LayersSeen seen;
    if (response.reason || sightOf(response) != TransientSight::layers) return seen;
    ImpedanceCurve curve;
    for (std::size_t i = 0; i < response.curve.timeS.size(); ++i)
        if (response.curve.timeS[i] <= response.steadyS) {
            curve.timeS.push_back(response.curve.timeS[i]);
            curve.kPerW.push_back(response.curve.kPerW[i]);
        }
    seen.terms = timeConstantsOf(curve);
    if (seen.terms.empty()) return seen;
    seen.ladder = cauerOf(seen.terms);
    seen.structure = structureFunction(seen.ladder);
    return seen;
}

} // namespace ibuki
