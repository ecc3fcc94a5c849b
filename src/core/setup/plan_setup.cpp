// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/setup/plan_setup.h"

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/domain/lookup.h"
#include "core/plan/power_analysis.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {
namespace {

bool isPlanned(const Slot& slot) { return !slot.mount && slot.skippedBecause.empty(); }

/// Mounts that count: made and not rejected.
bool isMade(const Document& document, const Slot& slot) {
    const Mount* mount = document.find(slot.mount);
    return mount && !mount->rejected;
}

int lastPosition(const Document& document, Id<Study> study) {
    const auto slots = slotsOf(document, study);
    return slots.empty() ? 0 : slots.back()->position;
}

Slot slotFor(const Design& design, const Plan& plan, Id<Study> study, const OrderedMount& mount,
             const Document& document) {
    Slot slot;
    slot.study = study;
    slot.block = mount.block;
    if (mount.level) {
        const DesignCell& cell = design.cells.at(*mount.level);
        slot.level = cell.level;
        slot.second = cell.second;
        return slot;
    }
    slot.kind = SlotKind::checkMount;
    for (const Level* level : levelsOf(document, design.question))
        if (level->material && level->material == plan.checkWith) slot.level = level->id;
    return slot;
}

/// Levels of the study's further questions, balanced inside each cell of the first one.
void layOtherQuestions(Edit& edit, const Question& question, int seed) {
    std::vector<Question> others;
    for (const Question* other : edit.document().where(&Question::study, question.study))
        if (other->id != question.id && !other->levelsFrom) others.push_back(*other);
    Random random(static_cast<std::uint64_t>(seed) + 7919);
    for (const Question& other : others) {
        const auto levels = levelsOf(edit.document(), other.id);
        if (levels.empty()) continue;
        std::vector<Id<Level>> ids;
        for (const Level* level : levels) ids.push_back(level->id);
        std::map<std::optional<Id<Level>>, std::size_t> next;
        for (std::size_t i = ids.size(); i > 1; --i)
            std::swap(ids[i - 1], ids[static_cast<std::size_t>(random.uniform() * static_cast<double>(i))]);
        std::vector<Slot> slots;
        for (const Slot* slot : slotsOf(edit.document(), question.study))
            if (slot->kind == SlotKind::level) slots.push_back(*slot);
        std::size_t offset = 0;
        for (const Slot& slot : slots) {
            if (!next.contains(slot.level)) next[slot.level] = offset++;
            const Id<Level> level = ids[next[slot.level]++ % ids.size()];
            if (!isPlanned(slot)) continue;
            SlotLevel stated;
            stated.slot = slot.id;
            stated.question = other.id;
            stated.level = level;
            edit.add(stated);
        }
    }
}

/// Another mount was made on the bench behind that of the slot.
bool wasTakenOff(const Document& document, const Slot& slot) {
    const Mount* mount = document.find(slot.mount);
    const Bench* bench = mount ? benchOf(document, *mount) : nullptr;
    return bench && mountsOf(document, bench->id).back()->id != mount->id;
}

void requireReason(const std::string& reason) {
    if (reason.find_first_not_of(" \t") != std::string::npos) return;
    throw InputError("skip-reason", {});
}

} // namespace

void removeSlot(Edit& edit, Id<Slot> slot) {
    std::vector<Id<SlotLevel>> levels;
    for (const SlotLevel* level : edit.document().where(&SlotLevel::slot, slot)) levels.push_back(level->id);
    std::vector<Id<FollowUp>> followUps;
    for (const FollowUp* later : edit.document().where(&FollowUp::slot, slot)) followUps.push_back(later->id);
    for (Id<SlotLevel> id : levels) edit.remove(id);
    for (Id<FollowUp> id : followUps) edit.remove(id);
    edit.remove(slot);
}

Plan planFor(const Document& document, Id<Study> study) {
    if (const Plan* plan = planOf(document, study)) return *plan;
    Plan plan;
    plan.study = study;
    plan.seed = static_cast<int>(study.value % 100'000) + 1;
    return plan;
}

void putPlan(Edit& edit, const Plan& plan) {
    if (plan.id)
        edit.put(plan);
    else
        edit.add(plan);
}

std::vector<const Slot*> plannedSlots(const Document& document, Id<Study> study) {
    auto slots = slotsOf(document, study);
    std::erase_if(slots, [](const Slot* slot) { return !isPlanned(*slot); });
    return slots;
}

TapeEvenings eveningsOfTape(const Document& document, const Question& question, const Plan& plan, Instant now,
                            const WallClock& clock) {
    TapeEvenings tape;
    tape.design = designOf(document, question);
    for (const DesignUnit& unit : tape.design.units) {
        if (!isPlanned(*document.find(unit.slot)) || (unit.kind == SlotKind::level && !unit.cell)) continue;
        tape.order.push_back({unit.cell, unit.block});
        tape.slotIds.push_back(unit.slot);
    }
    Evenings evenings = eveningsOf(plan, now);
    const bool begun = std::any_of(tape.design.units.begin(), tape.design.units.end(),
                                   [](const DesignUnit& unit) { return unit.mount.has_value(); });
    if (begun) evenings.firstDay = std::max(evenings.firstDay, now); // what is left lies ahead
    tape.schedule = schedule(stepsOf(document, question, plan, tape.design, tape.order), evenings, clock);
    return tape;
}

void layEvenings(Edit& edit, const Question& question, const Plan& plan, Instant now,
                 const WallClock& clock) {
    const TapeEvenings tape = eveningsOfTape(edit.document(), question, plan, now, clock);
    for (std::size_t i = 0; i < tape.slotIds.size(); ++i) {
        Slot slot = *edit.document().find(tape.slotIds[i]);
        slot.plannedFor = tape.schedule.mounts[i].start;
        edit.put(slot);
    }
}

void layPlan(Edit& edit, const Question& question, const Plan& plan, Instant now, const WallClock& clock) {
    const auto order = remainingOrder(edit.document(), question, plan, now);
    std::vector<Id<Slot>> old;
    for (const Slot* slot : plannedSlots(edit.document(), question.study)) old.push_back(slot->id);
    for (Id<Slot> slot : old) removeSlot(edit, slot);
    putPlan(edit, plan);
    const Design design = designOf(edit.document(), question);
    int position = lastPosition(edit.document(), question.study);
    const bool fresh = position == 0;
    int before = 0; // blocks of what was made already
    for (const DesignUnit& unit : design.units) before = std::max(before, unit.block);
    const int first = order.empty() ? 1 : order.front().block;
    if (plan.baseline && fresh) {
        Slot baseline;
        baseline.study = question.study;
        baseline.kind = SlotKind::baseline;
        baseline.position = ++position;
        edit.add(baseline);
    }
    for (const OrderedMount& mount : order) {
        Slot slot = slotFor(design, plan, question.study, {mount.level, before + mount.block - first + 1},
                            edit.document());
        slot.position = ++position;
        edit.add(slot);
    }
    layOtherQuestions(edit, question, plan.seed);
    layEvenings(edit, question, plan, now, clock);
    const Study& study = *edit.document().find(question.study);
    if (study.state == StudyState::draft) {
        Study planned = study;
        planned.state = StudyState::planned;
        edit.put(planned);
    }
}

void moveSlot(Edit& edit, Id<Slot> id, std::size_t place) {
    const Slot* moved = edit.document().find(id);
    if (!moved) return;
    std::vector<Slot> planned;
    std::vector<int> positions;
    std::vector<std::optional<Instant>> dates;
    for (const Slot* slot : plannedSlots(edit.document(), moved->study)) {
        planned.push_back(*slot);
        positions.push_back(slot->position);
        dates.push_back(slot->plannedFor);
    }
    const auto at =
        std::find_if(planned.begin(), planned.end(), [&](const Slot& slot) { return slot.id == id; });
    if (at == planned.end()) return;
    const Slot slot = *at;
    planned.erase(at);
    planned.insert(planned.begin() + static_cast<std::ptrdiff_t>(std::min(place, planned.size())), slot);
    for (std::size_t i = 0; i < planned.size(); ++i) {
        planned[i].position = positions[i];
        planned[i].plannedFor = dates[i]; // the evenings stay, their mounts change places
        edit.put(planned[i]);
    }
}

void skipSlot(Edit& edit, Id<Slot> id, const std::string& reason) {
    requireReason(reason);
    Slot slot = *edit.document().find(id);
    slot.skippedBecause = reason;
    edit.put(slot);
}

void takeUpAgain(Edit& edit, Id<Slot> id) {
    Slot slot = *edit.document().find(id);
    slot.skippedBecause.clear();
    edit.put(slot);
    Study study = *edit.document().find(slot.study);
    if (study.state != StudyState::closed) return;
    const auto slots = slotsOf(edit.document(), study.id);
    const bool begun =
        std::any_of(slots.begin(), slots.end(), [](const Slot* one) { return one->mount.has_value(); });
    study.state = begun ? StudyState::measuring : StudyState::planned;
    edit.put(study);
}

Id<Slot> addMount(Edit& edit, const Question& question, std::size_t cell, bool next) {
    const Design design = designOf(edit.document(), question);
    int block = 0;
    for (const DesignUnit& unit : design.units) block = std::max(block, unit.block);
    Slot slot = slotFor(design, planFor(edit.document(), question.study), question.study, {cell, block},
                        edit.document());
    slot.position = lastPosition(edit.document(), question.study) + 1;
    const auto planned = plannedSlots(edit.document(), question.study);
    if (!planned.empty()) slot.plannedFor = planned.back()->plannedFor;
    const Id<Slot> id = edit.add(slot);
    if (next) moveSlot(edit, id, 0);
    return id;
}

void stopEarly(Edit& edit, Id<Study> id, const std::string& reason) {
    requireReason(reason);
    std::vector<Id<Slot>> planned;
    for (const Slot* slot : plannedSlots(edit.document(), id)) planned.push_back(slot->id);
    for (Id<Slot> slot : planned) skipSlot(edit, slot, reason);
    Study study = *edit.document().find(id);
    study.state = StudyState::closed;
    edit.put(study);
}

void extendStudy(Edit& edit, const Question& question, int more, Instant now, const WallClock& clock) {
    if (more < 1) throw InputError("extend-by", {}, {{"more", more}});
    Plan plan = planFor(edit.document(), question.study);
    OrderInput input = orderInput(edit.document(), question, plan, now);
    input.blocks = more;
    input.checks = std::min(input.checks, 1);
    input.seed += 1'000'003ULL * static_cast<std::uint64_t>(plan.mountsPerLevel);
    for (LevelRule& rule : input.levels) {
        if (rule.mostMounts) rule.mostMounts = std::min(*rule.mostMounts, more);
        if (rule.placement == Placement::firstOfAll) rule.mostMounts = 0; // it is gone by now
    }
    const Design design = designOf(edit.document(), question);
    int block = 0;
    for (const DesignUnit& unit : design.units) block = std::max(block, unit.block);
    int position = lastPosition(edit.document(), question.study);
    for (const OrderedMount& mount : orderMounts(input)) {
        Slot slot =
            slotFor(design, plan, question.study, {mount.level, block + mount.block}, edit.document());
        slot.position = ++position;
        edit.add(slot);
    }
    plan.mountsPerLevel += more;
    putPlan(edit, plan);
    layEvenings(edit, question, planFor(edit.document(), question.study), now, clock);
    const auto looks = edit.document().where(&InterimLook::study, question.study);
    if (!looks.empty() && !looks.back()->extended) {
        InterimLook look = *looks.back();
        look.extended = true;
        look.declared = static_cast<int>(looks.size()) < plan.plannedLooks;
        edit.put(look);
    }
    Study study = *edit.document().find(question.study);
    if (study.state == StudyState::closed) {
        study.state = StudyState::measuring;
        edit.put(study);
    }
}

ChangeSet noteLook(const Document& document, Id<Study> id, Instant now) {
    const Study* study = document.find(id);
    const Question* question = study ? firstQuestion(document, id) : nullptr;
    if (!question || study->state != StudyState::measuring) return {};
    int made = 0;
    for (const Slot* slot : slotsOf(document, id)) made += isMade(document, *slot) ? 1 : 0;
    const auto looks = document.where(&InterimLook::study, id);
    if (made < 3 || (!looks.empty() && looks.back()->mounts == made)) return {};
    Edit edit(document, Message{"edit-see-verdict", {{"study", study->name}}});
    InterimLook look;
    look.study = id;
    look.at = now;
    look.mounts = made;
    edit.add(look);
    return edit.finish();
}

void layFollowUps(Edit& edit, const Plan& plan) {
    std::vector<Id<Slot>> slots;
    for (const Slot* slot : slotsOf(edit.document(), plan.study))
        if (slot->kind == SlotKind::level && slot->skippedBecause.empty()
            && !wasTakenOff(edit.document(), *slot))
            slots.push_back(slot->id);
    for (Id<Slot> slot : slots)
        for (const Delay& delay : plan.followUps) {
            const auto there = edit.document().where(&FollowUp::slot, slot);
            if (std::any_of(there.begin(), there.end(),
                            [&](const FollowUp* later) { return later->after == delay; }))
                continue;
            FollowUp later;
            later.slot = slot;
            later.after = delay;
            edit.add(later);
        }
}

void skipFollowUp(Edit& edit, Id<FollowUp> id, const std::string& reason) {
    requireReason(reason);
    FollowUp skipped = *edit.document().find(id);
    skipped.skippedBecause = reason;
    edit.put(skipped);
}

std::optional<Instant> dueAt(const Document& document, const FollowUp& followUp, const WallClock& clock) {
    const Slot* slot = document.find(followUp.slot);
    if (!slot) return std::nullopt;
    const Mount* mount = document.find(slot->mount);
    const auto from = mount ? mount->at : slot->plannedFor;
    if (!from) return std::nullopt;
    return dueAfter(*from, followUp.after, clock);
}

} // namespace ibuki
