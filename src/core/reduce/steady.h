// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The steady window of a load and how steady it is: trailing-window slope with its interval, and the
// exponential tail of the load (docs/methods.md, "Steady state").

#include "core/reduce/reduction.h"

namespace ibuki {

struct WindowChoice {
    Segment window;
    bool steady = false;  ///< false: nothing was steady, this is the last stretch there is
    bool isShort = false; ///< less than windowMinS
};

/// The longest trailing part of the load, ending guardS (or one sample) before it does, whose slope interval
/// is inside the limit and whose mean the slope bends by less than windowBiasK.
WindowChoice chooseWindow(std::span<const double> timeS, std::span<const double> series, Segment load,
                          const ReduceSettings& settings);

Steady judgeSteady(std::span<const double> timeS, std::span<const double> series, Segment load,
                   const WindowChoice& choice, const ReduceSettings& settings);

} // namespace ibuki
