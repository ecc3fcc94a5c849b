// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/next_step.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"

#include <algorithm>

namespace ibuki {
NextStep nextStep(const Document& document, Id<Study> study) {
    NextStep step;
    const auto slots = slotsOf(document, study);
    const auto planned = plannedSlots(document, study);
    step.planned = planned.size();
    for (const Slot* slot : slots) {
        const Mount* mount = document.find(slot->mount);
        if (!mount) continue;
        ++step.mounted;
        if (!step.mount && !mount->rejected && document.where(&Run::mount, mount->id).empty())
            step.mount = mount->id;
    }
    if (step.mount)
        step.needs = StudyNeeds::log;
    else if (!planned.empty())
        step.needs = StudyNeeds::mount;
    else if (slots.empty())
        step.needs = StudyNeeds::plan;
    if (!planned.empty()) step.slot = planned.front()->id;
    return step;
}

std::vector<Slot> draftedSlots(const Document& document, Id<Study> id, Instant now, const WallClock& clock) {
    const Study* study = document.find(id);
    const Question* question = firstQuestion(document, id);
    if (!study || !question || study->state == StudyState::closed || !slotsOf(document, id).empty())
        return {};
    Edit edit(document, "draft");
    try {
        layPlan(edit, *question, planFor(document, id), now, clock);
    } catch (const InputError&) {
        return {}; // the plan's page says why
    }
    std::vector<Slot> slots;
    for (const Slot* slot : slotsOf(edit.document(), id)) slots.push_back(*slot);
    return slots;
}

} // namespace ibuki
