// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the expected curve of a protocol tells, in words, without widgets.

#include "core/plan/expected_curve.h"

#include <QStringList>

namespace ibuki {

/// How long it lasts, when its gate should open, what is left to rise at its end.
QString stepForecast(const StepOccurrence& of, const StepForecast& step);
/// "0.2 K left", "0.1 K/min"; empty without a gate that can be foretold.
QString gateText(GateKind gate, double figure);
/// What the expected bench is made of, and where that comes from.
QString benchForecast(const ExpectedBench& bench);

} // namespace ibuki
