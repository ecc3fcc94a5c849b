// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/planned_mount.h"

#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/setup/question_setup.h"

#include <algorithm>

namespace ibuki {
namespace {

/// What a level of torque, or the plan, says about the screws.
std::optional<NewtonMetre> plannedTorque(const Document& document, Id<Study> study, const Level* level) {
    if (level && level->torque) return level->torque;
    const Plan* plan = planOf(document, study);
    return plan ? plan->torque : std::nullopt;
}

Id<Mount> addMount(Edit& edit, Id<Configuration> configuration, Id<Study> study, const ImportRow& row) {
    Mount mount;
    mount.configuration = configuration;
    mount.name = row.mountName;
    mount.at = row.at;
    mount.atAssumed = row.atAssumed;
    if (row.at) mount.block = dateText(*row.at);
    mount.torque = plannedTorque(edit.document(), study, edit.document().find(row.level));
    mount.order = 1'000'000; // behind all others until orderByTime
    return edit.add(mount);
}

void useApplication(Edit& edit, Id<Mount> mount, Id<Application> application, ApplicationUse how) {
    MountApplication use;
    use.mount = mount;
    use.application = application;
    use.use = how;
    edit.add(use);
}

/// The mount that a level changed without re-mounting goes on with: the one made last of the levels that
/// share it; nullptr when it is the first.
const Mount* sharedMount(const Document& document, Id<Study> study, const Level* level,
                         std::optional<Instant> at) {
    if (!level || !level->withoutRemount) return nullptr;
    const Mount* last = nullptr;
    for (const Slot* slot : slotsOf(document, study)) {
        const Mount* mount = document.find(slot->mount);
        const Level* there = document.find(slot->level);
        if (!mount || !there || !there->withoutRemount || there->id == level->id || mount->rejected) continue;
        if (at && mount->at && *mount->at > *at) continue;
        if (!last || (mount->at && last->at && *mount->at > *last->at)) last = mount;
    }
    if (!last) return nullptr;
    // Had this level its turn on that application already, then it was mounted anew since.
    for (const MountApplication* of : document.where(&MountApplication::mount, last->id))
        for (const MountApplication* use : document.where(&MountApplication::application, of->application)) {
            const Slot* slot = slotOf(document, study, use->mount);
            if (slot && slot->level == level->id) return nullptr;
        }
    return last;
}

void addApplication(Edit& edit, Id<Mount> mount, const Question& question, const Level* level,
                    const Material* material, std::optional<Instant> at) {
    Application application;
    application.site = question.site;
    application.start = at;
    if (material) {
        const auto lots = edit.document().where(&Lot::material, material->id);
        if (!lots.empty()) application.lot = lots.front()->id;
        if (level && level->lot) application.lot = level->lot;
    }
    if (level) { // a level of amount or pattern says what was done
        application.amount = level->amount;
        application.pattern = level->pattern;
    }
    useApplication(edit, mount, edit.add(application), ApplicationUse::fresh);
}

/// A mount that was not taken apart: its applications are those of the one before.
void goOnWith(Edit& edit, Id<Mount> mount, Id<Mount> before) {
    std::vector<Id<Application>> applications;
    for (const MountApplication* use : edit.document().where(&MountApplication::mount, before))
        applications.push_back(use->application);
    for (Id<Application> application : applications)
        useApplication(edit, mount, application, ApplicationUse::continued);
}

/// A level's material, or the known one of a check mount.
const Material* materialFor(const Document& document, Id<Study> study, const ImportRow& row) {
    if (const Level* level = document.find(row.level)) return document.find(level->material);
    const Plan* plan = planOf(document, study);
    return plan && row.kind == SlotKind::checkMount ? document.find(plan->checkWith) : nullptr;
}

/// What the study's further questions ask of the mount: their levels stand beside the slot.
void addOtherApplications(Edit& edit, const Slot& slot, std::optional<Instant> at) {
    std::vector<SlotLevel> stated;
    for (const SlotLevel* one : edit.document().where(&SlotLevel::slot, slot.id)) stated.push_back(*one);
    for (const SlotLevel& one : stated) {
        const Question asked = *edit.document().find(one.question);
        const Level level = *edit.document().find(one.level);
        addApplication(edit, *slot.mount, asked, &level, edit.document().find(level.material), at);
    }
}

/// The first planned slot of that level, else a new one at the end.
void fillSlot(Edit& edit, Id<Study> study, Id<Mount> mount, const ImportRow& row) {
    for (const Slot* slot : openSlots(edit.document(), study)) {
        if (!fits(*slot, row)) continue;
        Slot filled = *slot;
        filled.mount = mount;
        edit.put(filled);
        addOtherApplications(edit, filled, row.at);
        return;
    }
    const auto slots = slotsOf(edit.document(), study);
    Slot slot;
    slot.study = study;
    slot.position = slots.empty() ? 1 : slots.back()->position + 1;
    slot.kind = row.kind;
    slot.level = row.level;
    slot.second = row.second;
    slot.mount = mount;
    edit.add(slot);
}

} // namespace

void orderByTime(Edit& edit, Id<Bench> bench) {
    auto mounts = mountsOf(edit.document(), bench);
    std::stable_sort(mounts.begin(), mounts.end(), [](const Mount* a, const Mount* b) {
        if (a->at && b->at) return *a->at < *b->at;
        return a->at.has_value() && !b->at;
    });
    std::vector<Mount> placed;
    for (std::size_t i = 0; i < mounts.size(); ++i) {
        placed.push_back(*mounts[i]);
        placed.back().order = static_cast<int>(i + 1);
    }
    for (const Mount& mount : placed)
        if (edit.document().find(mount.id)->order != mount.order) edit.put(mount);
}

Id<Mount> addPlannedMount(Edit& edit, const Document& before, const Study& study, const Question& question,
                          const ImportRow& row) {
    const Level* level = before.find(row.level);
    const Configuration* rig = configurationFor(before, study.bench, level, before.find(row.second));
    const Id<Mount> mount = addMount(edit, rig->id, study.id, row);
    if (const Mount* shared = sharedMount(edit.document(), study.id, level, row.at))
        goOnWith(edit, mount, shared->id);
    else
        addApplication(edit, mount, question, level, materialFor(before, study.id, row), row.at);
    fillSlot(edit, study.id, mount, row);
    return mount;
}

void beginMeasuring(Edit& edit, const Study& study) {
    std::vector<Question> asked;
    for (const Question* one : edit.document().where(&Question::study, study.id)) asked.push_back(*one);
    for (Question& one : asked) {
        freezeResponse(one);
        edit.put(one);
    }
    Study measuring = study;
    measuring.state = StudyState::measuring;
    edit.put(measuring);
}

} // namespace ibuki
