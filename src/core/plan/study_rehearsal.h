// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The plan of a study as a scenario to rehearse, beside it what common practice would have done with the same
// bench: one mount each, best of three, all of one after all of the other, without the room taken off, at the
// limit (docs/methods.md E.12).

#include "core/base/message.h"
#include "core/domain/document.h"
#include "core/domain/plan.h"
#include "core/plan/power_analysis.h"
#include "core/plan/rehearsal.h"

namespace ibuki {

/// The practices of such a scenario, in its order.
enum class StudyPractice { plan, oneEach, bestOfThree, oneAfterTheOther, ambientLeftIn, atLimit };

struct StudyRehearsal {
    RehearsalScenario scenario; ///< a practice each StudyPractice; the first material is the one truly best
    std::vector<Message> basis; ///< where scatter, room and drift come from
    std::optional<double> hoursPerMount; ///< of the plan
    std::optional<double> gramsPerMount;
};

/// trueDifferenceK: by which the best level truly lies below all others, which are alike. analysis: of the
/// plan, for its evenings and costs; may be nullptr.
StudyRehearsal studyRehearsal(const Document& document, const Question& question, const Plan& plan,
                              double trueDifferenceK, const PowerAnalysis* analysis);

/// The plan's practice with 1 to `most` mounts of each level.
RehearsalScenario overMounts(const RehearsalScenario& scenario, int most);

} // namespace ibuki
