// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The gap helper: pads at every site of a configuration under one plate, which thicknesses would fit, whether
// the die still touches and how the backplate bows.

#include "core/domain/bench.h"
#include "core/domain/document.h"
#include "core/domain/material.h"
#include "core/physics/pad.h"

namespace ibuki {

/// Thicknesses pads are commonly sold in, mm.
inline constexpr std::array typicalPadThicknessesMm{0.5, 0.75, 1.0, 1.25, 1.5, 1.75, 2.0, 2.5, 3.0};

/// Taken where the bench states no force of all screws together, N.
inline constexpr double typicalMountForceN = 300;

/// Whether pads bridge the site: memory, power stages, backplate.
bool takesPads(const Site& site);

struct GapLine {
    Id<Site> site;
    PadAtSite pad;
    PadState state;
    std::vector<double> fitting; ///< usual thicknesses that would be pressed by 10 to 30 %
};

struct GapReport {
    std::vector<GapLine> lines;
    std::vector<Id<Site>> missing; ///< sites that lack a size or a gap
    double mountForceN = 0;
    double padForceN = 0;
    double dieForceN = 0;
    bool dieTouches = true;
    std::optional<PlateBow> bow; ///< where the plate's size is stated; steel
};

/// Pads of `thicknessMm` per site (those not named take the material's own); forceN: nothing takes the
/// configuration's stated force, else 300 N. Sites of die, lid and plate are not padded.
GapReport gapReport(const Document& document, const Configuration& configuration, const Material& pad,
                    const std::map<Id<Site>, double>& thicknessMm = {},
                    std::optional<double> forceN = std::nullopt);

} // namespace ibuki
