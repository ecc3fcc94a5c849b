// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A step of a protocol as it is carried out on a mount: planned, laid in time, foretold, run and watched by
// the same value. A protocol is expanded by its loads in one place.

#include "core/base/message.h"
#include "core/domain/plan.h"
#include "core/domain/study.h"
#include "core/quantity/instant.h"

#include <optional>
#include <string>
#include <vector>

namespace ibuki {

/// Where a duration comes from.
enum class TimeSource { typical, protocol, stated, learned };

struct StepOccurrence {
    StepKind kind = StepKind::soak;
    std::string load{};             ///< name; empty: none runs
    std::optional<double> powerW{}; ///< wanted while it lasts; nothing: idle, or a load without a target
    double minutes = 0;             ///< how long; of a gated step at most, of manual work about
    GateKind gate = GateKind::none;
    double gateValue = 0;
    double leastMinutes = 0; ///< its gate is not looked at before
    bool byHand = false;     ///< ends when it is said to be done
    int cycle = 0;           ///< of conditioning, from 1; 0: none
    bool unattended = true;
    TimeSource source = TimeSource::protocol;
    std::size_t row = 0;            ///< of the protocol, where it stands there
    std::optional<Instant> start{}; ///< once it is laid in time
    std::optional<Instant> end{};
};

/// Soak until `riseK` is left over by `withinK`: τ ln(riseK/withinK) (docs/methods.md, "Evenings").
double soakMinutes(double slowestMinutes, double riseK = 40, double withinK = 0.2);

/// The steps of a protocol as they are carried out, kinds before `from` left out: soak and measure for each
/// load, a step that is stated for one load in the place of the general one; the others once, conditioning
/// under the last load. slowestMinutes: time constant of the bench's slowest part, 0: not known. A soak lasts
/// at least as long as that part asks for, and its gate is not looked at before one time constant.
std::vector<StepOccurrence> occurrencesOf(const std::vector<ProtocolStep>& protocol,
                                          const std::vector<const Load*>& loads, double slowestMinutes,
                                          StepKind from = StepKind::settle);

/// "20 min at most, until the rest is below 0.2 K": how long a step lasts and what ends it.
Message lastsMessage(double minutes, GateKind gate, double gateValue);

} // namespace ibuki
