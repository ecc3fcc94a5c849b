// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The chance that a planned verdict settles its pairs, for any numbers of mounts; and that chance as a curve
// over the true difference and over the number of mounts (docs/methods.md, "How many mounts").

#include "core/plan/power_analysis.h"

namespace ibuki {

/// What the verdict will be asked, as far as chances depend on it.
struct PlannedVerdict {
    Goal goal = Goal::difference;
    double margin = 1;           ///< K, or what the response is in
    std::optional<double> apart; ///< true difference; nothing: the margin to be seen, 0 to be shown the same
    double confidence = 0.95;    ///< of one look
    std::optional<std::size_t> reference; ///< cell that the others are held against
    std::size_t together = 0;             ///< cells that are compared with each other
};

/// Cells that the verdict compares with each other: all, or those of one level of the second factor.
std::vector<std::vector<std::size_t>> comparedTogether(const Design& design);

PlannedVerdict askedOf(const Document& document, const Question& question, const Plan& plan,
                       const Design& design);

/// The lowest chance of all pairs; tells the pairs and the widest half width when asked.
double wantedChance(const PlannedVerdict& asked, double sd, const std::vector<int>& mounts,
                    std::vector<PairChance>* pairs, double* widest);

struct ChancePoint {
    double at = 0; ///< true difference, or mounts of each level
    double chance = 0;
    bool operator==(const ChancePoint&) const = default;
};

/// Of the weakest pair. Where a difference is asked for: that it is declared, rising with it. Where sameness
/// is: that it is shown within the margin, falling as the truth moves away from 0.
struct ChanceCurves {
    std::vector<ChancePoint> overDifference; ///< with the planned mounts, from 0 to three margins
    std::vector<ChancePoint> overMounts;     ///< at the margin (sameness: at 0), from 2 of each level
};

/// Of an analysis with pairs; none for a change inside mounts.
ChanceCurves chanceCurves(const Document& document, const Question& question, const Plan& plan,
                          const PowerAnalysis& analysis);

} // namespace ibuki
