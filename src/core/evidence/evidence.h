// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// From the document to what a question can be judged by. Window, command and report all call these.

#include "core/base/flag.h"
#include "core/comparison/reproducibility.h"
#include "core/comparison/two_factor.h"
#include "core/evidence/look_rejections.h"
#include "core/evidence/run_rows.h"

namespace ibuki {

struct Evidence : Judged {
    Design design;
    std::vector<RunRow> rows;
    Id<Load> load;                     ///< the compared one
    std::optional<TwoFactors> factors; ///< with a second factor, where both can be told together
    bool inSequence = false; ///< levels are steps that build on each other; groups stand in their order
    int excludedMounts = 0;
    std::optional<LookRejections> byLook;  ///< of them, those that were rejected by what was seen
    std::optional<Reproducibility> people; ///< where it is stated who mounted
    std::vector<Flag> runFlags; ///< warnings of compared runs, one of each code, with how many runs carry it
};

/// The level of the question's first factor that a group of the comparison stands for.
Id<Level> levelOfGroup(const Evidence& evidence, const GroupSummary& group);

/// Where no level was mounted twice, the scatter between mounts is taken from finished studies on the bench,
/// else from what is usual for the classes: every pair is then provisional.
Evidence gatherEvidence(const Document& document, const Question& question);

/// From what was mounted alone: none where no level was mounted twice.
Evidence measuredEvidence(const Document& document, const Question& question);

} // namespace ibuki
