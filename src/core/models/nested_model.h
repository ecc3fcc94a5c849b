// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Runs inside mounts: y_jk = x_j β + M_j + e_jk, M ~ N(0, σ_M²), e ~ N(0, σ_e²), x_j what the mount is
// (group, block). Fitted by restricted maximum likelihood (Patterson & Thompson 1971; docs/methods.md, "Runs
// inside mounts"), at the mount level: with θ = σ_M²/σ_e² and w_j = n_j/(1 + n_j θ),
//   −2ℓ_R = (N − p)(1 + ln 2πσ̂_e²) + Σ ln(1 + n_j θ) + ln|XᵀWX|,   σ̂_e² = (SSW + Σ w_j (ȳ_j − x_j β̂)²)/(N −
//   p).

#include "core/distributions/interval.h"
#include "core/models/least_squares.h"

#include <optional>
#include <span>
#include <vector>

namespace ibuki {

/// The runs of one mount.
struct MountRunsSummary {
    double mean = 0;
    int runs = 0;
    double ss = 0; ///< squared deviations from its mean
};

struct NestedFit {
    double between = 0;                ///< σ_M²
    double within = 0;                 ///< σ_e²
    double criterion = 0;              ///< −2ℓ_R
    bool atBound = false;              ///< σ_M² = 0 is the best that there is
    std::vector<double> meanVariances; ///< σ_M² + σ_e²/n_j, one a mount
};

/// design: a row a mount, of full rank. Nothing when no mount has two runs, or no degree of freedom is left.
std::optional<NestedFit> fitNested(std::span<const MountRunsSummary> mounts, const Columns& design);

} // namespace ibuki
