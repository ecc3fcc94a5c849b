// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What would spoil a run, said while it can still be saved (docs/methods.md, "Watch"): limits, room, fan,
// power, sensors, and a rise that is another than that of the mounts before.

#include "core/base/flag.h"
#include "core/conduct/latest_readings.h"
#include "core/conduct/rise_curve.h"
#include "core/plan/step_occurrence.h"
#include "core/series/stretch_means.h"

#include <array>

namespace ibuki {

/// What is known beforehand; what is not stated is not watched, or against the run's own beginning.
struct MonitorRules {
    std::optional<double> stopAboveC; ///< the load is stopped above it
    std::optional<double> limitC;     ///< at which the chip itself takes power away
    bool fanIsFixed = false;
    std::optional<double> typicalFanRpm;   ///< nothing: of the first half minute
    std::optional<double> typicalAmbientC; ///< nothing: of the first half minute
    std::vector<double> coreOffsetsK;      ///< usual, of a core from the mean of all; empty: not known
    EarlierRises earlier;                  ///< under the load that is watched
};

enum class StatusLight { dark, good, warn, stop };
struct StatusReading {
    StatusLight statusLight = StatusLight::dark;
    std::optional<double> value; ///< °C, W, rpm; of the limit: K below it
};
/// In the order in which they stand.
enum class StatusLights { room, power, fan, limit, sensors };

/// A state that began or ended.
struct MonitorEvent {
    Flag flag; ///< severity reject: the load must stop
    bool over = false;
};

class RunMonitor {
public:
    explicit RunMonitor(MonitorRules rules);

    /// In order of time. step: what is under way, an idle one without a load where nothing is; sinceS: since
    /// its load began, or since the step did.
    std::vector<MonitorEvent> take(const BenchSample& sample, const StepOccurrence& step, double sinceS);
    const std::array<StatusReading, 5>& statusLights() const { return statusLights_; }
    /// What keeps the chip from becoming steady, as far as it can be told: the room moves, the coolant still
    /// rises, the power creeps.
    std::vector<Message> unsteady() const;

private:
    /// Counts as so once it was for a while, and as over once it was not for as long.
    struct Held {
        bool on = false;
        std::optional<double> sinceS;
    };
    enum Rule {
        overStop,
        ambientBand,
        ambientDrift,
        fanMoved,
        powerOff,
        censored,
        stuck,
        offsets,
        risesOtherwise
    };
    static StretchMeans lastMinutes() { return {60, 15, StretchMeans::Overflow::forgetOldest}; }
    void judge(Rule rule, bool bad, double forS, Severity severity, const char* code, Fields fields);
    void learn(const BenchSample& sample);
    void watchLimits(const BenchSample& sample, const StepOccurrence& step);
    void watchAmbient(const BenchSample& sample);
    void watchFan(const BenchSample& sample);
    void watchPower(const BenchSample& sample, const StepOccurrence& step);
    void watchSensors(const BenchSample& sample, const StepOccurrence& step);
    void watchOffsets(const BenchSample& sample, const StepOccurrence& step);
    void watchRise(const BenchSample& sample, const StepOccurrence& step);
    void light(StatusLights statusLight, std::optional<double> value, std::initializer_list<Rule> rules);

    MonitorRules rules_;
    std::array<Held, 9> held_;
    std::array<StatusReading, 5> statusLights_;
    std::vector<MonitorEvent> events_;
    double nowS_ = 0;
    double sinceS_ = 0; ///< of the step
    std::optional<double> firstS_;
    MeanStretch firstAmbient_;
    MeanStretch firstFan_;
    StretchMeans ambientMinutes_ = lastMinutes();
    StretchMeans coolantMinutes_ = lastMinutes();
    StretchMeans powerMinutes_ = lastMinutes();
    struct Still { ///< a temperature that does not move while the chip does
        double value = 0;
        double sinceS = 0;
        double chipC = 0; ///< when it last moved
    };
    std::vector<Still> still_;
    std::vector<MeanStretch> coreIdle_; ///< of each core, over the idle step
    MeanStretch rise_;                  ///< the last ten seconds
};

} // namespace ibuki
