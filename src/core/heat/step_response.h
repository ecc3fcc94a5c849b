// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a load step of a log tells: Z(t) = (T(t) − T(0) − [room(t) − room(0)]) / ΔP from the moment the power
// stepped, and how fast and how finely it was seen (docs/methods.md H.10; JESD51-14).

#include "core/base/message.h"
#include "core/physics/structure_function.h"
#include "core/reduce/reduction.h"
#include "core/trace/trace.h"

namespace ibuki {

struct StepResponse {
    ImpedanceCurve curve;   ///< one value a sample after the step; 0 s is where the power has half its rise
    double stepW = 0;       ///< power after the step less power before it
    double steadyS = 0;     ///< as long as the power then stays within a twentieth of the step
    double intervalS = 0;   ///< between samples, median
    double sensorStepK = 0; ///< as logged; 0: none seen
    double noiseK = 0;      ///< standard deviation of a sample at rest
    bool isAmbientKnown = false;
    std::optional<Message> reason{}; ///< no power, no rest before it, no step, a ramp
};

/// Of the load's step. load: as found in the trace by reduce() with these settings.
StepResponse stepResponseOf(const Trace& trace, const ReduceSettings& settings, const Phase& load);

/// Z at that time, between its samples; nothing before the first of them or once the power has moved.
std::optional<double> impedanceAt(const StepResponse& response, double timeS);
/// dZ/dt there: what a start that is off by a second does, K/W/s.
std::optional<double> slopeAt(const StepResponse& response, double timeS);
/// Standard uncertainty of the start, s: it lies anywhere between two samples.
double startUncertaintyS(const StepResponse& response);

/// What sampling as this can tell apart (physics of the ladder: a joint under a lid answers within half a
/// second, one on the die within 15 ms).
enum class TransientSight {
    sum,    ///< die, joint and plate together: mounts against each other, no layers
    joint,  ///< 20 Hz and an eighth of a kelvin, or finer: where two curves part
    layers, ///< 1 kHz and quiet: a structure function
};
inline constexpr double jointIntervalS = 0.05;
inline constexpr double jointStepK = 0.125;
inline constexpr double layersIntervalS = 1e-3;
inline constexpr double layersNoiseK = 0.02;
TransientSight sightOf(const StepResponse& response);

/// The path as the step shows it, where the sight is of layers; else empty.
struct LayersSeen {
    std::vector<FosterTerm> terms;
    std::vector<LadderNode> ladder;
    std::vector<StructurePoint> structure;
};
LayersSeen layersOf(const StepResponse& response);

} // namespace ibuki
