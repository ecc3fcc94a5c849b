// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a study waits for, so that every page that is still empty says the same way on; and its plan as it
// would go on the tape, before it is there.

#include "core/domain/document.h"
#include "core/domain/plan.h"
#include "core/domain/study.h"
#include "core/quantity/wall_clock.h"

namespace ibuki {

/// In the order in which they come.
enum class StudyNeeds { plan, mount, log, nothing };

struct NextStep {
    StudyNeeds needs = StudyNeeds::nothing;
    std::optional<Id<Slot>> slot;   ///< of mount: what to mount next
    std::optional<Id<Mount>> mount; ///< of log: the mount that has none
    std::size_t mounted = 0;        ///< slots that were filled
    std::size_t planned = 0;        ///< slots that wait
    bool operator==(const NextStep&) const = default;
};

NextStep nextStep(const Document& document, Id<Study> study);

/// The slots that putting the plan on the tape now would make, in order; none when the tape has some already,
/// the study is closed or its plan cannot be laid.
std::vector<Slot> draftedSlots(const Document& document, Id<Study> study, Instant now,
                               const WallClock& clock = {});

} // namespace ibuki
