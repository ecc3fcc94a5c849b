// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From a step response to the heat capacity along the path of the heat: time constants by deconvolution, the
// ladder that has them, and its cumulative structure function C_Σ(R_Σ), in which a joint is a flat stretch as
// wide as its resistance (Protonotarios & Wing 1967; Székely & Van Bien 1988; docs/methods.md H.10).

#include "core/physics/foster.h"

namespace ibuki {

/// A step response; times above 0 and rising, as many values.
struct ImpedanceCurve {
    std::vector<double> timeS;
    std::vector<double> kPerW;
};

struct DeconvolutionSettings {
    int perDecade = 20;       ///< time constants and points of the curve, evenly in ln t
    int iterations = 2'000;   ///< of the Bayesian iteration; more tell more layers, and more of the noise
    double leastShare = 1e-7; ///< of the whole resistance: terms below are none
};

/// Terms whose sum follows the curve: Bayesian (Richardson–Lucy) iteration on its rises between points evenly
/// spaced in ln t, which keeps every R at or above 0. Falls of a noisy curve count as no rise. Empty where
/// the curve has fewer than three points or does not rise.
std::vector<FosterTerm> timeConstantsOf(const ImpedanceCurve& curve,
                                        const DeconvolutionSettings& settings = {});

/// Where the heat is: everything up to a resistance from the junction has this capacity.
struct StructurePoint {
    double kPerW = 0;
    double jPerK = 0;
};
/// One point a node: the resistance before it, the capacities up to it; last the whole resistance.
std::vector<StructurePoint> structureFunction(const std::vector<LadderNode>& nodes);

} // namespace ibuki
