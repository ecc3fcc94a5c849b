// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A bench looked at by itself: one idle stretch, one load, one cooling, and from them what its sensors are
// worth and how slow it is (docs/methods.md, "Check-up").

#include "core/conduct/conductor.h"
#include "core/domain/edit.h"
#include "core/trace/trace.h"

#include <string>
#include <vector>

namespace ibuki {

/// Idle, load until little is left to rise, measure, cool. powerW: of the load.
std::vector<StepOccurrence> checkUpSteps(const std::string& load, double powerW);
/// The largest load that a study of the bench plans, else 150 W.
double checkUpPowerW(const Document& document, Id<Bench> bench);

struct CheckedChannel {
    std::string column;
    Role role = Role::ignore;
    int index = 0;
    std::optional<double> noiseK; ///< standard deviation from sample to sample at rest
    std::optional<double>
        resolutionK;               ///< its smallest step; nothing: finer than its noise, or it never moved
    std::optional<double> offsetK; ///< of a core from the mean of all at rest
};

struct CheckUp {
    std::vector<CheckedChannel> channels;   ///< temperatures
    std::optional<double> slowestMinutes;   ///< time constant of the load's tail
    std::optional<double> ambientGradientK; ///< ± half of what two room probes or more differ by
    std::vector<Message> doubts;            ///< what could not be told, and why
};

/// Of a recording that went through those steps; what can be told of any other.
CheckUp checkUpOf(const Trace& trace);

/// Onto the bench's sheet: sensors of its current configuration by role and number, the slowest part, the
/// room's gradient. What was not told stays as it is.
void putCheckUp(Edit& edit, Id<Bench> bench, const CheckUp& checked);

} // namespace ibuki
