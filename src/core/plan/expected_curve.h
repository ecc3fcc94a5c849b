// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The curve that a bench is expected to draw over its study's protocol: a thermal ladder with the resistance
// and the slowest time constant of this bench, stepped through the powers of the steps. It says when each
// gate should open and how much is left to rise (docs/methods.md, "Expected curve").

#include "core/domain/document.h"
#include "core/physics/thermal_ladder.h"
#include "core/plan/step_occurrence.h"

#include <optional>
#include <vector>

namespace ibuki {

/// Where a figure of the expected bench comes from: finished runs of it, its sheet, or what is usual.
enum class ExpectedFrom { learned, stated, typical };

struct ExpectedBench {
    double kPerW = 0; ///< chip to room
    ExpectedFrom kPerWFrom = ExpectedFrom::typical;
    double slowestMinutes = 0; ///< time constant of the slowest part
    ExpectedFrom slowestFrom = ExpectedFrom::typical;
    double idleW = 0;
    double loadW = 0;               ///< of a load without a target: median of its runs, else usual
    std::vector<LadderNode> ladder; ///< of that resistance and time constant
};

/// Learned: medians over the runs of the study's bench that count. Usual: the air ladder of docs/methods.md.
ExpectedBench expectedBench(const Document& document, Id<Study> study);

/// What is foretold of a step.
struct StepForecast {
    double from = 0; ///< min, from the end of the manual work
    double to = 0;
    double powerW = 0;
    double riseK = 0;              ///< over the room, at its end
    double leftK = 0;              ///< steady − rise at its end; below 0 while it cools
    std::optional<double> opensAt; ///< min: when its gate is expected to hold; nothing: no such gate,
                                   ///< or not within a day
    std::optional<double> atEnd;   ///< the gate's own figure at the end of the step
};

struct ExpectedPoint {
    double minute = 0;
    double riseK = 0;
    double slopeKPerMin = 0;
};

struct ExpectedCurve {
    ExpectedBench bench;
    std::vector<StepOccurrence>
        steps; ///< from the first settling on; manual work and conditioning stand before
    std::vector<StepForecast> forecasts; ///< of each of the steps
    std::vector<ExpectedPoint> points;

    /// What a gate of the step reads at that minute of the curve; nothing where it is about the room or none.
    std::optional<double> gateFigure(std::size_t step, GateKind gate, double minute) const;
};

/// Of these steps, which need not be stored yet; bench: expectedBench of the study.
ExpectedCurve expectedCurve(const Document& document, Id<Study> study, const ExpectedBench& bench,
                            const std::vector<ProtocolStep>& protocol);

} // namespace ibuki
