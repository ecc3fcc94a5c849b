// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/conduct/conductor.h"
#include "core/conduct/run_monitor.h"
#include "live/source.h"

#include <functional>
#include <mutex>

namespace ibuki {

/// What the user says to a run that is under way.
enum class Word { manualWorkDone, skip, pause, resume, abort, startOver };

/// How a run stands.
struct RunStatus {
    BenchSample sample; ///< its time: since the first reading of the source that is followed
    std::size_t place = 0;
    std::size_t count = 0;              ///< of steps
    std::optional<StepOccurrence> step; ///< nothing: none is under way
    double stepBeganS = 0;
    bool paused = false;
    bool waitsForLoad = false;        ///< the step's load is not seen yet
    std::optional<double> loadBeganS; ///< of the load that runs
    std::optional<GateReading> gate;
    std::array<StatusReading, 5> statusLights;
    std::vector<Message> unsteady; ///< why the gate will not open in time
};

struct Driven {
    std::vector<StepEvent> steps;
    std::vector<MonitorEvent> watched;
};

/// Conductor and watch among the threads of the sources: they follow the first source that reads a chip, in
/// that one's thread, so that a simulated bench feels its load with the very next sample.
class Driving {
public:
    /// load: told the power that is wanted, whenever a step begins or ends. rules: nothing is watched
    /// without.
    Driving(std::vector<StepOccurrence> steps, std::optional<MonitorRules> rules,
            std::function<void(std::optional<double>)> load);

    /// kept: s, how long a reading of the source counts.
    void add(std::size_t source, const std::vector<SourceChannel>& channels, double keptS);

    /// What a reading makes happen; times are since the first reading of the source that is followed.
    Driven take(std::size_t source, double arrivedS, const TimedRow& reading);
    Driven say(Word word);

    RunStatus status() const;
    const std::vector<StepOccurrence>& steps() const { return conductor_.steps(); }

private:
    std::vector<MonitorEvent> watch(const BenchSample& sample);
    void note(const std::vector<StepEvent>& events);

    mutable std::mutex mutex_;
    Conductor conductor_;
    std::optional<RunMonitor> watch_;
    std::function<void(std::optional<double>)> load_;
    LatestReadings latest_;
    std::vector<std::vector<std::size_t>> places_; ///< of each source's channels among the latest
    std::size_t channels_ = 0;
    std::optional<std::size_t> driver_;
    std::optional<double> zeroS_;
    BenchSample sample_;
    std::string running_; ///< name of the load
    double loadBeganS_ = 0;
};

} // namespace ibuki
