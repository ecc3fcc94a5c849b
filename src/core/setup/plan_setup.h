// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A plan put on the tape, and what happens to it on the way: another order, a mount skipped or added, a study
// stopped early or extended, mounts that come back later, looks at the verdict. Each is one undoable action.

#include "core/domain/edit.h"
#include "core/evidence/interim_look.h"
#include "core/plan/design_order.h"
#include "core/plan/schedule.h"
#include "core/quantity/wall_clock.h"

#include <vector>

namespace ibuki {

/// The study's plan, or the one it would begin with.
Plan planFor(const Document& document, Id<Study> study);
void putPlan(Edit& edit, const Plan& plan);

/// Slots still to be filled, in order.
std::vector<const Slot*> plannedSlots(const Document& document, Id<Study> study);

/// Puts the plan and its order in the place of the planned slots; slots that were filled or skipped stay.
/// Each gets its evening from the schedule. Other questions of the study get their levels balanced over the
/// mounts. Throws what orderInput and schedule throw.
void layPlan(Edit& edit, const Question& question, const Plan& plan, Instant now,
             const WallClock& clock = {});

/// What is planned on the tape, in its present order, in the evenings that the plan has now.
struct TapeEvenings {
    Design design;
    std::vector<Id<Slot>> slotIds;
    std::vector<OrderedMount> order; ///< of those slots
    Schedule schedule;
};

/// Throws what schedule throws.
TapeEvenings eveningsOfTape(const Document& document, const Question& question, const Plan& plan, Instant now,
                            const WallClock& clock = {});

/// Evenings of the planned slots anew, in their present order.
void layEvenings(Edit& edit, const Question& question, const Plan& plan, Instant now,
                 const WallClock& clock = {});

/// Moves a planned slot before the planned slot that stands at `place` (0: what to do next).
void moveSlot(Edit& edit, Id<Slot> slot, std::size_t place);

/// With what was planned on it. The caller has seen that it has no mount.
void removeSlot(Edit& edit, Id<Slot> slot);

/// Throws InputError (skip-reason) for an empty reason.
void skipSlot(Edit& edit, Id<Slot> slot, const std::string& reason);
/// A study that was stopped goes on by it.
void takeUpAgain(Edit& edit, Id<Slot> slot);

/// One more mount of the cell behind the planned ones, or as what to do next.
Id<Slot> addMount(Edit& edit, const Question& question, std::size_t cell, bool next);

/// Skips all planned slots with the reason and closes the study.
void stopEarly(Edit& edit, Id<Study> study, const std::string& reason);

/// `more` further mounts of each level in blocks of their own. When the verdict was seen meanwhile and that
/// look was not declared, the look is marked: its verdict carries unplanned-look.
void extendStudy(Edit& edit, const Question& question, int more, Instant now, const WallClock& clock = {});

/// Somebody sees the verdict now. Empty when the study is not under way, nothing is planned any more, or this
/// number of mounts was seen already.
ChangeSet noteLook(const Document& document, Id<Study> study, Instant now);

/// A follow-up of every mount of the study after each of the plan's delays; those there already stay. A mount
/// behind which another was made on the bench was taken off: there is nothing to come back to.
void layFollowUps(Edit& edit, const Plan& plan);
/// Throws InputError (skip-reason) for an empty reason.
void skipFollowUp(Edit& edit, Id<FollowUp> followUp, const std::string& reason);
/// When the follow-up is due: after its mount, else after the evening planned for it; nothing when neither is
/// known.
std::optional<Instant> dueAt(const Document& document, const FollowUp& followUp, const WallClock& clock = {});

} // namespace ibuki
