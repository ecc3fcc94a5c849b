// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// After the learner has committed: what was measured beside what is true, what was right, how much of it was
// luck, and what a better plan would have told.

#include "core/distributions/interval.h"
#include "core/practice/practice.h"

namespace ibuki {

struct ReviewedLevel {
    SealedLevel truth;
    int mounts = 0;              ///< that count
    std::optional<double> meanK; ///< of the mounts' means; nothing: none was measured
    std::optional<Interval> ci;  ///< of the comparison, where there is one
    bool trulyBest = false;      ///< or as good as, by a tenth of a kelvin
};

struct PracticeReview {
    std::vector<ReviewedLevel> levels; ///< the truly coolest first
    bool right = false;                ///< the level that was committed to is truly the coolest
    double namedRight = 0;             ///< share of such campaigns whose lowest mean is truly the coolest
    int mountsToTell = 0;              ///< of each, to tell the two coolest apart at 90 %
    double gapK = 0;                   ///< between the two coolest in truth
    std::vector<Message> sentences;    ///< what was right, what luck, what a better plan would have said
};

/// namedRight by 20,000 seeded campaigns of the learner's own numbers of mounts.
PracticeReview reviewOf(const Document& document, const Practice& practice);

} // namespace ibuki
