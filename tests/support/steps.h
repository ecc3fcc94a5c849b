// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Steps and dates as tests of evenings state them.

#include "core/plan/step_occurrence.h"

namespace ibuki::story {

inline Instant at(const char* text) { return *parseInstant(text); }

inline StepOccurrence manualWork(double minutes) {
    StepOccurrence step{StepKind::apply, {}, {}, minutes};
    step.unattended = false;
    return step;
}
inline StepOccurrence alone(double minutes) { return {StepKind::soak, {}, {}, minutes}; }

} // namespace ibuki::story
