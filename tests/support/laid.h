// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The story's study with its plan laid on the tape.

#include "core/setup/plan_setup.h"
#include "support/story.h"

namespace ibuki::story {

inline const Instant now = *parseInstant("2031-03-01");

/// A study of three pastes with its plan laid.
struct Laid {
    Asked asked = ask();
    Question question = *firstQuestion(asked.document, asked.study);

    explicit Laid(int mounts = 3, int checks = 0) {
        Plan plan = planFor(asked.document, asked.study);
        plan.mountsPerLevel = mounts;
        plan.checkMounts = checks;
        if (checks > 0) plan.checkWith = asked.document.all<Material>().begin()->first;
        lay(plan);
    }
    void lay(const Plan& plan) {
        Edit edit(asked.document, "plan");
        layPlan(edit, question, plan, now);
        apply(asked.document, edit.finish());
    }
    template <class Change> ChangeSet change(Change&& apply) {
        Edit edit(asked.document, "change");
        apply(edit);
        const ChangeSet set = edit.finish();
        ibuki::apply(asked.document, set);
        return set;
    }
    void comeBackAfter(const std::string& delays) {
        change([&](Edit& edit) {
            Plan plan = planFor(asked.document, asked.study);
            plan.followUps = parseDelays(delays);
            putPlan(edit, plan);
            layFollowUps(edit, plan);
        });
    }
    std::vector<const Slot*> planned() const { return plannedSlots(asked.document, asked.study); }
    std::string names() const {
        std::string text;
        for (const Slot* slot : planned())
            text += slot->kind == SlotKind::checkMount ? "*"
                                                       : asked.document.find(slot->level)->name.substr(0, 1);
        return text;
    }
};

} // namespace ibuki::story
