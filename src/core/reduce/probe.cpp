// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/probe.h"
#include "core/base/nan.h"
#include "core/reduce/metric.h"

#include "core/models/least_squares.h"
#include "core/series/autocorrelation.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace ibuki {
namespace {

constexpr double mostHoldS = 120; ///< beyond the probe's ends

/// Mean room reading of the probe on its own stamps.
struct ProbeSeries {
    std::vector<double> timeS; ///< on the log's axis, before any shift
    std::vector<double> valuesC;
};

std::vector<const Channel*> ambientChannels(const Trace& probe) {
    auto channels = channelsOf(probe, Role::ambient);
    for (const Channel& channel : probe.channels)
        if (channels.empty() && isTemperature(channel.role) && !channel.values.empty())
            channels.push_back(&channel);
    if (channels.empty()) // a probe's log may name its one column as it likes
        for (const Channel& channel : probe.channels)
            if (channel.role != Role::time && !channel.values.empty()) channels.push_back(&channel);
    return channels;
}

ProbeSeries ambientOf(const Trace& log, const Trace& probe, double zoneS = 0) {
    const double offsetS =
        zoneS
        + (log.start && probe.start ? static_cast<double>(probe.start->ms - log.start->ms) / 1000.0 : 0.0);
    const auto channels = ambientChannels(probe);
    ProbeSeries room;
    for (std::size_t i = 0; i < probe.samples(); ++i) {
        double sum = 0;
        int count = 0;
        for (const Channel* channel : channels)
            if (std::isfinite(channel->values[i])) {
                sum += channel->values[i];
                ++count;
            }
        if (count == 0) continue;
        room.timeS.push_back(probe.timeS[i] + offsetS);
        room.valuesC.push_back(sum / count);
    }
    return room;
}

/// Linear between samples; NaN further than `hold` beyond the ends.
double ambientAt(const ProbeSeries& room, double t, double hold) {
    if (room.timeS.empty() || t < room.timeS.front() - hold || t > room.timeS.back() + hold) return nan;
    const auto after = std::lower_bound(room.timeS.begin(), room.timeS.end(), t);
    if (after == room.timeS.begin()) return room.valuesC.front();
    if (after == room.timeS.end()) return room.valuesC.back();
    const auto i = static_cast<std::size_t>(after - room.timeS.begin());
    const double share = (t - room.timeS[i - 1]) / (room.timeS[i] - room.timeS[i - 1]);
    return room.valuesC[i - 1] + share * (room.valuesC[i] - room.valuesC[i - 1]);
}

/// The chip's temperature in blocks, with what every phase does by itself taken out by projection.
class ChipResidual {
public:
    ChipResidual(const Trace& log, const PhaseSettings& settings) {
        const ChipChannels chip = chipChannels(log, {});
        auto series = metricSeries(log, chip, Metric::coreAverage);
        if (series.empty()) series = metricSeries(log, chip, Metric::hottest);
        if (series.empty() || log.samples() < 60) return;
        blockS_ = std::max({5.0, 2 * medianIntervalS(log), log.durationS() / 600});
        const Channel* power = firstChannel(log, Role::packagePower);
        if (!power) power = firstChannel(log, Role::gpuPower);
        const auto loads =
            findLoads({log.timeS, power ? std::span<const double>(power->values) : std::span<const double>(),
                       false, series},
                      settings);
        std::vector<double> borders{0};
        for (const Segment& load : loads) {
            borders.push_back(log.timeS[load.begin]);
            borders.push_back(load.end < log.samples() ? log.timeS[load.end] : log.durationS());
        }
        borders.push_back(log.durationS() + 1);
        for (std::size_t i = 1; i < borders.size(); ++i) addPhase(log, series, borders[i - 1], borders[i]);
        if (times_.size() < 30) {
            times_.clear();
            return;
        }
        makeBasis();
    }

    bool usable() const { return !times_.empty(); }
    const std::vector<double>& times() const { return times_; }
    double blockS() const { return blockS_; }
    double df() const {
        return static_cast<double>(times_.size()) - static_cast<double>(basis_.columns()) - 2;
    }

    /// What is left of a series on times() after each phase's own course.
    std::vector<double> project(const std::vector<double>& y) const { return withoutPartIn(basis_, y); }
    std::vector<double> leftOver() const { return project(means_); }

private:
    static constexpr std::array<double, 5> lagsS{20, 60, 180, 540, 1'600}; ///< fast die to slow loop

    void addPhase(const Trace& log, const std::vector<double>& series, double from, double to) {
        std::vector<double> times;
        std::vector<double> means;
        // The first block of a phase belongs to the change itself.
        auto at = std::lower_bound(log.timeS.begin(), log.timeS.end(), from + blockS_) - log.timeS.begin();
        const auto n = static_cast<std::ptrdiff_t>(log.samples());
        while (at < n && log.timeS[static_cast<std::size_t>(at)] < to) {
            const double begin = log.timeS[static_cast<std::size_t>(at)];
            double sum = 0;
            double sumT = 0;
            int count = 0;
            for (; at < n && log.timeS[static_cast<std::size_t>(at)] < std::min(to, begin + blockS_); ++at) {
                const double v = series[static_cast<std::size_t>(at)];
                if (!std::isfinite(v)) continue;
                sum += v;
                sumT += log.timeS[static_cast<std::size_t>(at)];
                ++count;
            }
            if (count == 0) continue;
            times.push_back(sumT / count);
            means.push_back(sum / count);
        }
        if (times.size() < 12) return;
        phases_.push_back({times_.size(), times_.size() + times.size(), from});
        times_.insert(times_.end(), times.begin(), times.end());
        means_.insert(means_.end(), means.begin(), means.end());
    }

    void makeBasis() {
        Columns design(times_.size(), phases_.size() * (1 + lagsS.size()));
        std::size_t column = 0;
        for (const PhaseBlocks& phase : phases_) {
            for (std::size_t i = phase.begin; i < phase.end; ++i) design[column][i] = 1;
            ++column;
            for (double lag : lagsS) {
                for (std::size_t i = phase.begin; i < phase.end; ++i)
                    design[column][i] = std::exp(-(times_[i] - phase.startS) / lag);
                ++column;
            }
        }
        basis_ = orthonormalBasis(design, 1e-8);
    }

    struct PhaseBlocks {
        std::size_t begin = 0;
        std::size_t end = 0;
        double startS = 0;
    };
    double blockS_ = 0;
    std::vector<double> times_;
    std::vector<double> means_;
    std::vector<PhaseBlocks> phases_;
    Columns basis_{0, 0};
};

/// The room as the chip sees it: read at t − shift, smoothed by a first-order lag. Nothing when the probe
/// does not reach over nearly all of it.
std::optional<std::vector<double>> laggedAmbient(const ChipResidual& chip, const ProbeSeries& room,
                                                 double shiftS, double lagS) {
    const auto& times = chip.times();
    std::vector<double> lagged(times.size());
    double state = nan;
    double last = 0;
    std::size_t missing = 0;
    for (std::size_t i = 0; i < times.size(); ++i) {
        double now = ambientAt(room, times[i] - shiftS, mostHoldS);
        if (!std::isfinite(now)) {
            now = ambientAt(room, times[i] - shiftS, std::numeric_limits<double>::infinity());
            ++missing;
        }
        if (i == 0) {
            // The lag began before the log: run in over what the probe saw earlier.
            state = ambientAt(room, times[0] - shiftS - 4 * lagS, std::numeric_limits<double>::infinity());
            const int steps = 40;
            for (int k = 1; k <= steps && lagS > 0; ++k) {
                const double t = times[0] - shiftS - 4 * lagS * (1 - static_cast<double>(k) / steps);
                state += (1 - std::exp(-4.0 / steps))
                         * (ambientAt(room, t, std::numeric_limits<double>::infinity()) - state);
            }
        } else if (lagS > 0) {
            state += (1 - std::exp(-(times[i] - last) / lagS)) * (now - state);
        }
        if (lagS <= 0) state = now;
        last = times[i];
        lagged[i] = state;
    }
    if (missing * 5 > times.size()) return std::nullopt;
    return lagged;
}

constexpr std::array<double, 11> coolerLagsS{0, 15, 30, 60, 90, 130, 190, 270, 400, 600, 900};
constexpr double leastGain = 0.15; ///< less of the room than that in the chip is no room
constexpr double mostGain = 1.1;
constexpr double typicalClockErrorS = 300; ///< standard deviation of clocks that nobody set: the prior
constexpr double coarseS = 10;
constexpr double roughShare = 0.1;
constexpr double basinS = 120; ///< around the likeliest shift

std::vector<double> residuals(const std::vector<double>& target, double gain,
                              const std::vector<double>& part) {
    std::vector<double> left(target.size());
    for (std::size_t i = 0; i < left.size(); ++i) left[i] = target[i] - gain * part[i];
    return left;
}

/// One trial: how well the room, moved by shiftS and smoothed by lagS, explains what is left of the chip.
struct Trial {
    double shiftS = 0;
    double lagS = 0;
    double sum = std::numeric_limits<double>::infinity(); ///< of the squared residuals
    double gain = 0;
};

/// What of a trial room the phases' own courses do not explain, with the gain by least squares: sensors that
/// lag, and rooms that a probe sees only in part, make it differ from 1.
Trial trialOf(const ChipResidual& chip, const ProbeSeries& room, const std::vector<double>& target,
              double shiftS, double lagS) {
    Trial trial{shiftS, lagS};
    const auto lagged = laggedAmbient(chip, room, shiftS, lagS);
    if (!lagged) return trial;
    const std::vector<double> part = chip.project(*lagged);
    const double square = dot(part, part);
    trial.gain = square > 0 ? std::clamp(dot(part, target) / square, 0.0, mostGain) : 0;
    if (trial.gain < leastGain) trial.gain = 0;
    const auto left = residuals(target, trial.gain, part);
    trial.sum = dot(left, left);
    return trial;
}

/// Mean and standard deviation of the shift over the trials, each weighed by its likelihood and the prior.
struct ShiftPosterior {
    double mean = 0;
    double sd = 0;
};

double costOf(const Trial& trial, double variance) {
    return trial.sum / variance + trial.shiftS * trial.shiftS / (typicalClockErrorS * typicalClockErrorS);
}

ShiftPosterior posterior(const std::vector<Trial>& trials, double variance) {
    const auto cost = [&](const Trial& t) { return costOf(t, variance); };
    double least = std::numeric_limits<double>::infinity();
    for (const Trial& trial : trials) least = std::min(least, cost(trial));
    double weight = 0;
    double sum = 0;
    double squares = 0;
    for (const Trial& trial : trials) {
        if (!std::isfinite(trial.sum)) continue;
        const double w = std::exp(-0.5 * (cost(trial) - least));
        weight += w;
        sum += w * trial.shiftS;
        squares += w * trial.shiftS * trial.shiftS;
    }
    if (!(weight > 0)) return {};
    const double mean = sum / weight;
    return {mean, std::sqrt(std::max(0.0, squares / weight - mean * mean))};
}

std::vector<Trial> trialsOver(const ChipResidual& chip, const ProbeSeries& room,
                              const std::vector<double>& target, double from, double to, double step) {
    std::vector<Trial> trials;
    for (double shift = from; shift <= to; shift += step)
        for (double lag : coolerLagsS) trials.push_back(trialOf(chip, room, target, shift, lag));
    return trials;
}

} // namespace

ProbeFit alignProbe(const Trace& log, const Trace& probe, double zoneS, double reachS,
                    const PhaseSettings& phases) {
    ProbeFit fit;
    fit.shiftS = zoneS;
    const ProbeSeries room = ambientOf(log, probe, zoneS);
    const ChipResidual chip(log, phases);
    if (!chip.usable() || room.timeS.size() < 20) return fit;
    const std::vector<double> target = chip.leftOver();
    const double calm = dot(target, target);
    const auto coarse = trialsOver(chip, room, target, -reachS, reachS, coarseS);
    const Trial best = *std::min_element(coarse.begin(), coarse.end(),
                                         [](const Trial& a, const Trial& b) { return a.sum < b.sum; });
    if (!std::isfinite(best.sum) || best.gain == 0) return fit;
    const auto left =
        residuals(target, best.gain, chip.project(*laggedAmbient(chip, room, best.shiftS, best.lagS)));
    const double inflation = integratedAutocorrelationTime(left);
    const double variance = inflation * best.sum / std::max(1.0, chip.df());
    // Told when the room explains far more than noise would by chance.
    if ((calm - best.sum) / variance < 25) return fit;
    // One lag is a rough picture of a cooler: sums that differ by less than a tenth of the least one do not
    // tell shifts apart. Then, of the repeats that a room that swings evenly gives, the nearest one counts.
    const double rough = std::max(variance, roughShare * best.sum);
    const Trial likeliest =
        *std::min_element(coarse.begin(), coarse.end(), [&](const Trial& a, const Trial& b) {
            return costOf(a, rough) < costOf(b, rough);
        });
    const ShiftPosterior reported = posterior(
        trialsOver(chip, room, target, likeliest.shiftS - basinS, likeliest.shiftS + basinS, basinS / 40),
        rough);
    if (reported.sd > reachS / 3) return fit;
    fit = {true, zoneS + reported.mean, std::max(reported.sd, chip.blockS() / std::sqrt(12.0))};
    return fit;
}

double probeCover(const Trace& log, const Trace& probe, double shiftS) {
    const ProbeSeries room = ambientOf(log, probe, shiftS);
    if (room.timeS.empty() || log.samples() == 0) return 0;
    const auto seen = std::count_if(log.timeS.begin(), log.timeS.end(),
                                    [&](double t) { return std::isfinite(ambientAt(room, t, mostHoldS)); });
    return static_cast<double>(seen) / static_cast<double>(log.samples());
}

Trace withProbe(Trace log, const Trace& probe, const ProbeAlignment& alignment) {
    const ProbeSeries room = ambientOf(log, probe, alignment.shiftS);
    if (room.timeS.empty()) return log;
    log.probe = alignment;
    if (!alignment.isTaken()) return log;
    for (Channel& channel : log.channels)
        if (channel.role == Role::ambient) channel.role = Role::ignore;
    Channel laid;
    laid.column = "probe";
    for (const Channel* channel : ambientChannels(probe)) {
        laid.column = channel->column;
        laid.fileUnit = channel->fileUnit;
        break;
    }
    laid.role = Role::ambient;
    for (double t : log.timeS) laid.values.push_back(ambientAt(room, t, mostHoldS));
    log.channels.push_back(std::move(laid));
    return log;
}

} // namespace ibuki
