// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/run_monitor.h"

#include "core/series/autocorrelation.h"

#include <algorithm>
#include <cmath>

namespace ibuki {
namespace {

constexpr double learnS = 30;
constexpr double ambientBandK = 2;
constexpr double ambientDriftKPerH = 1.5;
constexpr double shareOff = 0.05; ///< of fan and power
constexpr double holdS = 20;
constexpr double powerSettlesS = 30; ///< after a load began
constexpr double nearLimitK = 1.5;
constexpr double stuckS = 120;
constexpr double stuckRiseK = 5;
constexpr double offsetOffK = 3;
constexpr double riseFromS = 120;
constexpr double riseOffK = 1;
constexpr std::size_t leastMinutes = 6;

/// Per hour, through the minutes; nothing with too few of them or one that cannot be told from none.
std::optional<double> slopePerHour(const StretchMeans& minutes) {
    std::vector<double> hours;
    std::vector<double> values;
    for (const MeanStretch& minute : minutes.stretches()) {
        hours.push_back(minute.beginS / 3600);
        values.push_back(minute.mean());
    }
    if (hours.size() < leastMinutes) return std::nullopt;
    const auto fit = fitSlope(hours, values);
    if (!fit || fit->interval(0.95).contains(0)) return std::nullopt;
    return fit->slope;
}

} // namespace

RunMonitor::RunMonitor(MonitorRules rules) : rules_(std::move(rules)) {}

std::vector<MonitorEvent> RunMonitor::take(const BenchSample& sample, const StepOccurrence& step,
                                           double sinceS) {
    events_.clear();
    nowS_ = sample.timeS;
    sinceS_ = sinceS;
    learn(sample);
    watchLimits(sample, step);
    watchAmbient(sample);
    watchFan(sample);
    watchPower(sample, step);
    watchSensors(sample, step);
    watchRise(sample, step);
    return std::move(events_);
}

void RunMonitor::judge(Rule rule, bool bad, double forS, Severity severity, const char* code, Fields fields) {
    Held& held = held_[rule];
    if (bad == held.on) {
        held.sinceS.reset();
        return;
    }
    if (!held.sinceS) held.sinceS = nowS_;
    if (nowS_ - *held.sinceS < forS) return;
    held.on = bad;
    held.sinceS.reset();
    Flag flag = makeFlag(severity, code, std::move(fields));
    if (!bad) flag = makeFlag(Severity::info, "watch-ended", {{"flag", flag.message}});
    events_.push_back({std::move(flag), !bad});
}

void RunMonitor::light(StatusLights statusLight, std::optional<double> value,
                       std::initializer_list<Rule> rules) {
    const bool any = std::any_of(rules.begin(), rules.end(), [this](Rule rule) { return held_[rule].on; });
    const bool stop = std::any_of(rules.begin(), rules.end(),
                                  [this](Rule rule) { return rule == overStop && held_[rule].on; });
    statusLights_[static_cast<std::size_t>(statusLight)] = {stop    ? StatusLight::stop
                                                            : any   ? StatusLight::warn
                                                            : value ? StatusLight::good
                                                                    : StatusLight::dark,
                                                            value};
}

void RunMonitor::learn(const BenchSample& sample) {
    if (!firstS_) firstS_ = sample.timeS;
    const auto keep = [&](StretchMeans& minutes, std::optional<double> value) {
        if (value) minutes.take(sample.timeS, *value);
    };
    keep(ambientMinutes_, sample.ambientC);
    keep(coolantMinutes_, sample.coolantC);
    keep(powerMinutes_, sample.powerW);
    if (sample.timeS - *firstS_ > learnS) return;
    if (sample.ambientC) firstAmbient_.take(*sample.ambientC);
    if (sample.fanRpm) firstFan_.take(*sample.fanRpm);
}

void RunMonitor::watchLimits(const BenchSample& sample, const StepOccurrence& step) {
    const bool over = rules_.stopAboveC && sample.highestC && *sample.highestC > *rules_.stopAboveC;
    judge(overStop, over, 2, Severity::reject, "watch-over",
          {{"celsius", sample.highestC.value_or(0)}, {"limit", rules_.stopAboveC.value_or(0)}});
    const bool reported = sample.limitShare.value_or(0) > 0.5;
    const bool short_ = step.powerW && sample.powerW && *sample.powerW < (1 - shareOff) * *step.powerW;
    const bool near_ = rules_.limitC && sample.chipC && *sample.chipC > *rules_.limitC - nearLimitK;
    judge(censored, !step.load.empty() && (reported || (near_ && (short_ || !step.powerW))), holdS,
          Severity::warn, "watch-limit-bound", {});
    std::optional<double> left;
    if (rules_.limitC && sample.chipC) left = *rules_.limitC - *sample.chipC;
    light(StatusLights::limit, left, {overStop, censored});
}

void RunMonitor::watchAmbient(const BenchSample& sample) {
    const auto typical = rules_.typicalAmbientC    ? rules_.typicalAmbientC
                         : firstAmbient_.count > 0 ? std::optional(firstAmbient_.mean())
                                                   : std::nullopt;
    const double off = sample.ambientC && typical ? *sample.ambientC - *typical : 0;
    judge(ambientBand, std::abs(off) > ambientBandK, holdS, Severity::warn, "watch-room-band",
          {{"kelvin", off}, {"usual", typical.value_or(0)}});
    const auto drift = slopePerHour(ambientMinutes_);
    judge(ambientDrift, drift && std::abs(*drift) > ambientDriftKPerH, holdS, Severity::warn,
          "watch-room-drift", {{"kelvin", drift.value_or(0)}});
    light(StatusLights::room, sample.ambientC, {ambientBand, ambientDrift});
}

void RunMonitor::watchFan(const BenchSample& sample) {
    const auto typical = rules_.typicalFanRpm  ? rules_.typicalFanRpm
                         : firstFan_.count > 0 ? std::optional(firstFan_.mean())
                                               : std::nullopt;
    const bool moved = rules_.fanIsFixed && sample.fanRpm && typical && *typical > 0
                       && std::abs(*sample.fanRpm / *typical - 1) > shareOff;
    judge(fanMoved, moved, holdS, Severity::warn, "watch-fan",
          {{"rpm", sample.fanRpm.value_or(0)}, {"usual", typical.value_or(0)}});
    light(StatusLights::fan, sample.fanRpm, {fanMoved});
}

void RunMonitor::watchPower(const BenchSample& sample, const StepOccurrence& step) {
    const bool asked = step.powerW && sinceS_ > powerSettlesS;
    const bool off = asked && sample.powerW && !held_[censored].on
                     && std::abs(*sample.powerW / *step.powerW - 1) > shareOff;
    judge(powerOff, off, holdS, Severity::warn, "watch-power",
          {{"watt", sample.powerW.value_or(0)}, {"wanted", step.powerW.value_or(0)}});
    light(StatusLights::power, sample.powerW, {powerOff});
}

/// A temperature that stays where it is while the hottest goes on.
void RunMonitor::watchSensors(const BenchSample& sample, const StepOccurrence& step) {
    const double chip = sample.chipC.value_or(0);
    while (still_.size() < sample.chipsC.size())
        still_.push_back({sample.chipsC[still_.size()], sample.timeS, chip});
    std::int64_t stuckCount = 0;
    for (std::size_t i = 0; i < sample.chipsC.size(); ++i) {
        Still& one = still_[i];
        if (sample.chipsC[i] != one.value) {
            one = {sample.chipsC[i], sample.timeS, chip};
            continue;
        }
        if (sample.timeS - one.sinceS >= stuckS && std::abs(chip - one.chipC) > stuckRiseK) ++stuckCount;
    }
    judge(stuck, stuckCount > 0, holdS, Severity::warn, "watch-stuck", {{"count", stuckCount}});
    watchOffsets(sample, step);
    light(StatusLights::sensors, sample.chipC, {stuck, offsets});
}

/// How cores stand to each other at rest, against how they used to.
void RunMonitor::watchOffsets(const BenchSample& sample, const StepOccurrence& step) {
    if (step.kind != StepKind::idle) coreIdle_.clear();
    if (step.kind != StepKind::idle || rules_.coreOffsetsK.size() != sample.coresC.size()) return;
    coreIdle_.resize(sample.coresC.size());
    for (std::size_t i = 0; i < sample.coresC.size(); ++i) {
        if (!std::isfinite(sample.coresC[i])) continue;
        coreIdle_[i].take(sample.coresC[i]);
    }
    double all = 0;
    int count = 0;
    for (const MeanStretch& core : coreIdle_) {
        if (core.count == 0) continue;
        all += core.mean();
        ++count;
    }
    double worst = 0;
    for (std::size_t i = 0; i < coreIdle_.size(); ++i) {
        const MeanStretch& core = coreIdle_[i];
        if (core.count < 30 || !std::isfinite(rules_.coreOffsetsK[i])) continue;
        const double off = core.mean() - all / count - rules_.coreOffsetsK[i];
        if (std::abs(off) > std::abs(worst)) worst = off;
    }
    judge(offsets, std::abs(worst) > offsetOffK, holdS, Severity::warn, "watch-offsets", {{"kelvin", worst}});
}

/// Held against the mounts of the same level from the second minute of the load on.
void RunMonitor::watchRise(const BenchSample& sample, const StepOccurrence& step) {
    if (step.load.empty() || !sample.chipC || !sample.ambientC || sinceS_ < riseFromS) {
        rise_ = {};
        if (step.load.empty()) judge(risesOtherwise, false, 0, Severity::info, "watch-rises-above", {});
        return;
    }
    if (rise_.count == 0) rise_.beginS = sinceS_;
    rise_.take(*sample.chipC - *sample.ambientC);
    if (sinceS_ - rise_.beginS < 10) return;
    const double now = rise_.mean();
    const double atS = (rise_.beginS + sinceS_) / 2;
    rise_ = {};
    std::optional<double> highest; // of those that were kept
    const EarlierRise* like = nullptr;
    double likeOff = 0;
    if (!rules_.earlier) return;
    for (const EarlierRise& earlier : *rules_.earlier) {
        const auto there = earlier.curve.at(atS);
        if (!earlier.sameLevel || !there) continue;
        if (!earlier.rejected)
            highest = std::max(highest.value_or(*there), *there);
        else if (!like || std::abs(now - *there) < likeOff) {
            like = &earlier;
            likeOff = std::abs(now - *there);
        }
    }
    if (!highest) return;
    const double above = now - *highest;
    const bool asRejected = like && likeOff < above;
    judge(risesOtherwise, above > riseOffK, 25, Severity::warn,
          asRejected ? "watch-rises-as" : "watch-rises-above",
          asRejected ? Fields{{"kelvin", above}, {"mount", like->name}} : Fields{{"kelvin", above}});
}

std::vector<Message> RunMonitor::unsteady() const {
    std::vector<Message> reasons;
    if (const auto room = slopePerHour(ambientMinutes_); room && std::abs(*room) > 0.5)
        reasons.push_back({"unsteady-room", {{"kelvin", *room}}});
    if (const auto coolant = slopePerHour(coolantMinutes_); coolant && *coolant > 0.5)
        reasons.push_back({"unsteady-coolant", {{"kelvin", *coolant}}});
    if (const auto power = slopePerHour(powerMinutes_); power) {
        const double now = powerMinutes_.stretches().back().mean();
        if (now > 0 && *power / now > 0.02) reasons.push_back({"unsteady-power", {{"watt", *power}}});
    }
    return reasons;
}

} // namespace ibuki
