// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The calibration by propagating distributions instead of variances (JCGM 101:2008): where an anchor is known
// to a half only, R″ does not follow in a straight line, and no interval may reach below a joint of nothing.

#include "core/heat/calibration.h"

#include <functional>
#include <stop_token>

namespace ibuki {

struct DrawOptions {
    int draws = 20'000; ///< an end of a 95 % interval is then known to a hundredth of its width
    std::uint64_t seed = 1;
    int threads = 0; ///< 0: as many as there are cores; figures do not depend on it
    std::stop_token stop{};
    std::function<void(double)> progress{}; ///< may be empty; told on the calling thread
};

/// Intervals that hold the confidence's share of the draws, as many beyond either end.
struct DrawnCalibration {
    int draws = 0;   ///< that were possible
    int refused = 0; ///< with an anchor so large that nothing is left for the cooler
    std::optional<Interval> coolerCi;
    std::vector<std::optional<Interval>> groups;      ///< of R″, as in the calibration
    std::vector<std::optional<Interval>> differences; ///< as in the calibration
    bool cancelled = false;
};

/// Distributions: means of a group by Student's t with the scatter's degrees of freedom (all share its
/// draw), the power's scale even over ± √3 u, the anchor log-normal with its mean and
/// standard uncertainty. Nothing is drawn where no group has two mounts, nor of a group that reached its
/// limit.
DrawnCalibration drawCalibration(const Calibration& calibration, const DrawOptions& options = {});

/// Whether the law of propagation will do: both ends agree within a twentieth of the width (JCGM 101, 8.1,
/// for figures of two digits).
bool agree(const Interval& byPropagation, const Interval& byDraws);

} // namespace ibuki
