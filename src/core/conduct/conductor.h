// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Walks a protocol while its readings come: when each step begins and ends, which power is wanted. A pure
// machine: readings and the user's words go in, what happened comes out; its clock is that of the readings.

#include "core/conduct/gate_watch.h"
#include "core/plan/step_occurrence.h"

#include <string>
#include <string_view>
#include <vector>

namespace ibuki {

/// The steps of a protocol as they are run: as `occurrencesOf` makes them from conditioning on (its cycles
/// before its long load); manual work stands before.
std::vector<StepOccurrence> conductedSteps(const std::vector<ProtocolStep>& protocol,
                                           const std::vector<const Load*>& loads, double slowestMinutes = 0);

enum class StepState { begun, done, timedOut, skipped, paused, aborted };

std::string_view stepStateWord(StepState state); ///< "timed-out"

struct StepEvent {
    std::size_t step = 0;
    StepState state = StepState::begun;
    double timeS = 0;
    std::optional<double> predictedS; ///< until it ends, when it begins
    bool loadNotSeen = false;         ///< it timed out while it waited for its load
};

class Conductor {
public:
    explicit Conductor(std::vector<StepOccurrence> steps);

    /// A reading; returns what happened by it, in order. The first one begins the first step.
    std::vector<StepEvent> take(const GateSample& sample);

    // What the user says; each returns what happened by it.
    std::vector<StepEvent> confirm(double timeS);   ///< the hands are done; else nothing happens
    std::vector<StepEvent> skip(double timeS);      ///< the step that is under way is left out
    std::vector<StepEvent> pause(double timeS);     ///< no load, no clock, no gate
    std::vector<StepEvent> resume(double timeS);    ///< with the step anew; a measuring step from its soak
    std::vector<StepEvent> abort(double timeS);     ///< nothing of the rest is run
    std::vector<StepEvent> startOver(double timeS); ///< from the first step that is not by hand

    bool finished() const { return at_ >= steps_.size(); }
    bool isPaused() const { return paused_; }
    /// nothing: none is under way.
    const StepOccurrence* current() const { return finished() ? nullptr : &steps_[at_]; }
    std::size_t place() const { return at_; }
    double beganS() const { return beganS_; } ///< of the step under way; under load: since that is seen
    /// The step under way has a load that the data do not show yet: neither its clock nor its gate counts.
    bool waitsForLoad() const { return waits_; }
    const std::vector<StepOccurrence>& steps() const { return steps_; }
    std::optional<double> wantedW() const; ///< power of the load that should run now
    std::optional<GateReading> gate() const;

private:
    void begin(double timeS, std::vector<StepEvent>& events);
    void end(StepState state, double timeS, std::vector<StepEvent>& events);
    void goTo(std::size_t step, double timeS, std::vector<StepEvent>& events);
    void begin(double timeS);
    bool showsLoad(const GateSample& sample) const;

    std::vector<StepOccurrence> steps_;
    std::size_t at_ = 0;
    bool begun_ = false;
    bool paused_ = false;
    bool waits_ = false;
    double beganS_ = 0;
    std::optional<GateWatch> watch_;
    std::deque<GateSample> idle_; ///< the last minute without a load
    std::optional<double> idleC_;
    std::optional<double> restC_; ///< before the load, whichever step that was
    std::optional<double> restW_;
};

} // namespace ibuki
