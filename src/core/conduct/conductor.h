// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Walks a protocol while its readings come: when each step begins and ends, which power is wanted. A pure
// machine: readings go in, what happened comes out; its clock is that of the readings.

#include "core/conduct/gate_watch.h"

#include <memory>
#include <string>
#include <vector>

namespace ibuki {

struct ConductedStep {
    StepKind kind = StepKind::soak;
    std::string load;             ///< name; empty: none
    std::optional<double> powerW; ///< wanted while it lasts; nothing: idle
    double minutes = 0;           ///< how long; of a gated step at most
    GateKind gate = GateKind::none;
    double gateValue = 0;
};

/// The steps of a protocol as they are run: soak and measure for each load, conditioning under the last load;
/// hands stand before.
std::vector<ConductedStep> conductedSteps(const std::vector<ProtocolStep>& protocol,
                                          const std::vector<const Load*>& loads);

enum class StepState { begun, done, timedOut, skipped };

struct StepEvent {
    std::size_t step = 0;
    StepState state = StepState::begun;
    double timeS = 0;
    std::optional<double> predictedS; ///< until it ends, when it begins or when the gate told more
};

class Conductor {
public:
    explicit Conductor(std::vector<ConductedStep> steps);

    /// A reading; returns what happened by it, in order. The first one begins the first step.
    std::vector<StepEvent> take(const GateSample& sample);
    /// The step that is under way is left out.
    std::vector<StepEvent> skip(double timeS);

    bool finished() const { return at_ >= steps_.size(); }
    /// nothing: none is under way.
    const ConductedStep* current() const { return finished() ? nullptr : &steps_[at_]; }
    const std::vector<ConductedStep>& steps() const { return steps_; }
    std::optional<double> wantedW() const; ///< power of the load that should run now
    std::optional<GateReading> gate() const;

private:
    void begin(double timeS, std::vector<StepEvent>& events);
    void end(StepState state, double timeS, std::vector<StepEvent>& events);

    std::vector<ConductedStep> steps_;
    std::size_t at_ = 0;
    bool begun_ = false;
    double beganS_ = 0;
    std::optional<GateWatch> watch_;
    std::deque<GateSample> idle_; ///< the last minute without a load
    std::optional<double> idleC_;
};

} // namespace ibuki
