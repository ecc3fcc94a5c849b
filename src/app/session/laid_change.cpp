// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/laid_change.h"

#include "core/domain/lookup.h"
#include "core/setup/plan_setup.h"
#include "store/calendar/calendar.h"

namespace ibuki {

bool performLaid(Session& session, Edit edit) {
    const Study* study = session.study();
    const Question* asked = study ? firstQuestion(edit.document(), study->id) : nullptr;
    if (asked && !plannedSlots(edit.document(), study->id).empty()) {
        const Plan plan = planFor(edit.document(), study->id);
        try {
            layEvenings(edit, Question(*asked), plan, session.now(), wallClockOf(plan.zone));
        } catch (const InputError&) { // Question says it beside the evenings
        }
    }
    return session.perform(edit.finish());
}

} // namespace ibuki
