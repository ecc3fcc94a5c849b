// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// How mounts by one and the same person repeat, and how people differ (ISO 5725-2: repeatability and
// reproducibility). Model on mount means: y = μ_level + P_person + e, P and e independent; the levels' means
// are taken out and the variances found by equating the mean square of people to its expectation (Henderson's
// method 3, Biometrics 9, 1953), so that people need not have mounted every level as often.

#include "core/comparison/compare.h"

#include <optional>

namespace ibuki {

struct Reproducibility {
    int persons = 0;
    double repeatabilitySd = 0;   ///< s_r, between mounts of one person
    double betweenPersonsSd = 0;  ///< s_L; 0 where people differ no more than mounts do
    double reproducibilitySd = 0; ///< s_R = √(s_L² + s_r²)
    double df = 0;                ///< of s_r
};

/// The block of each run is its person. Nothing with fewer than two, or without degrees of freedom beside
/// levels and people.
std::optional<Reproducibility> reproducibilityOf(const std::vector<RunValue>& runs);

} // namespace ibuki
