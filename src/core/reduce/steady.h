// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The steady window of a load and how steady it is: trailing-window slope with its interval, and the
// exponential tail of the load (docs/methods.md, "Steady state").

#include "core/reduce/metric.h"
#include "core/reduce/reduction.h"
#include "core/series/tail_fit.h"

namespace ibuki {

struct WindowChoice {
    Segment window;
    bool steady = false;         ///< false: nothing was steady, this is the last stretch there is
    bool isShort = false;        ///< less than windowMinS
    std::optional<TailFit> tail; ///< of the load up to the window's end
};

/// The longest trailing part of the load, ending guardS (or one sample) before it does, whose slope interval
/// is inside the limit and whose mean its slope bends by less than windowBiasK. Where the tail tells the
/// slope, the length follows from the tail: a length chosen by the window's own noisy slope would favour
/// windows whose noise hides the rise, and their means would be off.
WindowChoice chooseWindow(std::span<const double> timeS, std::span<const double> series, Segment load,
                          const ReduceSettings& settings);

/// The part of the load that the tail is fitted to: without its beginning, which belongs to the fast time
/// constants of die and lid.
Segment tailOf(std::span<const double> timeS, Segment load, Segment window);

Steady judgeSteady(std::span<const double> timeS, std::span<const double> series, Segment load,
                   const WindowChoice& choice, const ReduceSettings& settings);

} // namespace ibuki
