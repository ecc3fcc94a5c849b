// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/import.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace ibuki {
namespace {

/// Gives every mount of the bench its place by time; undated ones keep their order behind the dated.
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

void useApplication(Edit& edit, Id<Mount> mount, Id<Application> application, bool isNew) {
    MountApplication use;
    use.mount = mount;
    use.application = application;
    use.isNew = isNew;
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
    useApplication(edit, mount, edit.add(application), true);
}

/// A mount that was not taken apart: its applications are those of the one before.
void goOnWith(Edit& edit, Id<Mount> mount, Id<Mount> before) {
    std::vector<Id<Application>> applications;
    for (const MountApplication* use : edit.document().where(&MountApplication::mount, before))
        applications.push_back(use->application);
    for (Id<Application> application : applications) useApplication(edit, mount, application, false);
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

Id<Recording> addRecording(Edit& edit, Id<Bench> bench, const ImportedLog& log, const ImportRow& row) {
    Recording recording;
    recording.bench = bench;
    recording.fileName = log.fileName;
    recording.sha256 = log.sha256;
    recording.bytes = log.bytes;
    recording.start = log.trace.start ? log.trace.start : row.at;
    recording.startAssumed = !log.trace.start;
    recording.readAs = log.readAs;
    recording.samples = static_cast<std::int64_t>(log.trace.samples());
    recording.durationS = log.trace.durationS();
    return edit.add(recording);
}

/// A load of the study that was found in a log but is not one of the planned ones, by its name.
Id<Load> foundLoad(Edit& edit, Id<Study> study, const std::string& name) {
    int last = 0;
    for (const Load* load : edit.document().where(&Load::study, study)) {
        if (!load->planned && load->name == name) return load->id;
        last = std::max(last, load->position);
    }
    Load found;
    found.study = study;
    found.position = last + 1;
    found.name = name;
    found.planned = false;
    found.sameAs = earlierLoad(edit.document(), study, name);
    return edit.add(found);
}

/// The study's planned load that the power fits best, within 15 %; else the power itself says which.
Id<Load> loadFor(Edit& edit, Id<Study> study, const LoadReduction& found, std::size_t among) {
    const auto planned = loadsOf(edit.document(), study);
    const Load* best = nullptr;
    double nearest = 0.15;
    for (const Load* load : planned) {
        if (!load->target || !found.powerW || load->target->value <= 0) continue;
        const double off = std::abs(*found.powerW / load->target->value - 1);
        if (off >= nearest) continue;
        nearest = off;
        best = load;
    }
    if (best) return best->id;
    if (among > 1 && found.powerW) return foundLoad(edit, study, fmt::format("{:.0f} W", *found.powerW));
    return planned.empty() ? foundLoad(edit, study, "sustained load") : planned.front()->id;
}

/// Loads of nearly one power are cycles of one step.
std::vector<Id<Load>> loadsFor(Edit& edit, Id<Study> study, const Reduction& reduction) {
    std::vector<Id<Load>> steps;
    for (std::size_t i = 0; i < reduction.loads.size(); ++i) {
        const auto& power = reduction.loads[i].powerW;
        std::optional<Id<Load>> before;
        for (std::size_t k = 0; k < i && power && !before; ++k) {
            const auto& earlier = reduction.loads[k].powerW;
            if (earlier && std::abs(*power / *earlier - 1) <= 0.03) before = steps[k];
        }
        steps.push_back(before ? *before : loadFor(edit, study, reduction.loads[i], reduction.loads.size()));
    }
    return steps;
}

void addRun(Edit& edit, Run run, const ImportedLog& log) {
    int repeat = 1;
    for (const Run* other : runsOf(edit.document(), run.mount)) repeat += other->load == run.load ? 1 : 0;
    run.repeat = repeat;
    RunReduction stored;
    stored.run = edit.add(run);
    stored.reduction = log.reduction;
    stored.settings = log.settings;
    stored.settings.hand.load = run.loadIndex;
    edit.add(stored);
}

/// One run for each load of the log.
void addRuns(Edit& edit, Id<Mount> mount, Id<Recording> recording, const ImportedLog& log, Id<Study> study) {
    Run run;
    run.mount = mount;
    run.recording = recording;
    const auto steps = loadsFor(edit, study, log.reduction);
    if (steps.size() < 2) {
        run.load = steps.empty() ? loadFor(edit, study, {}, 0) : steps.front();
        addRun(edit, run, log);
        return;
    }
    for (std::size_t i = 0; i < steps.size(); ++i) {
        run.loadIndex = static_cast<int>(i);
        run.load = steps[i];
        addRun(edit, run, log);
    }
}

/// The log's recording takes the probe's as its room.
void joinProbe(Edit& edit, const std::vector<std::pair<std::size_t, Id<Recording>>>& recordings,
               std::size_t log, Id<Recording> probe) {
    for (const auto& [index, id] : recordings) {
        if (index != log) continue;
        Recording joined = *edit.document().find(id);
        joined.probe = probe;
        edit.put(joined);
    }
}

void refuseWithoutLevel(const ImportRow& row, const Question& question, const std::string& fileName) {
    if (row.mount || row.kind != SlotKind::level) return;
    if (!row.level) throw InputError("import-no-level", {fileName, {}, {}});
    if (question.secondFactor && !row.second)
        throw InputError("import-no-level.second-factor", {fileName, {}, {}},
                         {{"secondFactor", Term{word(*question.secondFactor)}}});
}

/// A new mount with its application, or with those that it goes on with, in its place in the plan.
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

/// From the first log on, the study is being measured and what its questions compare is frozen.
void beginMeasuring(Edit& edit, const Study& study) {
    std::vector<Question> asked;
    for (const Question* one : edit.document().where(&Question::study, study.id)) asked.push_back(*one);
    for (Question& one : asked) {
        one.frozen = true;
        edit.put(one);
    }
    Study measuring = study;
    measuring.state = StudyState::measuring;
    edit.put(measuring);
}

} // namespace

ImportChanges importChanges(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                            const std::vector<ImportRow>& rows) {
    const Study* of = document.find(study);
    const Question* question = of ? firstQuestion(document, study) : nullptr;
    if (!question || !currentConfiguration(document, of->bench)) throw InputError("import-no-bench", {});
    const auto taken = std::count_if(rows.begin(), rows.end(), [](const ImportRow& row) { return row.take; });
    Edit edit(document, Message{"edit-import", {{"count", taken}}});
    ImportChanges changes;
    for (std::size_t i : rowsByTime(rows)) { // what goes on with a mount comes after it
        const ImportRow& row = rows[i];
        if (!row.take) continue;
        if (!row.probeOf) refuseWithoutLevel(row, *question, logs[i].fileName);
        const Id<Recording> recording = addRecording(edit, of->bench, logs[i], row);
        changes.recordings.emplace_back(i, recording);
        if (row.probeOf) continue;
        const Id<Mount> mount = row.mount ? *row.mount : addPlannedMount(edit, document, *of, *question, row);
        addRuns(edit, mount, recording, logs[i], study);
    }
    for (const auto& [index, probe] : changes.recordings)
        if (rows[index].probeOf) joinProbe(edit, changes.recordings, *rows[index].probeOf, probe);
    orderByTime(edit, of->bench);
    if (taken > 0) beginMeasuring(edit, *of);
    changes.set = edit.finish();
    return changes;
}

void placeMountAt(Edit& edit, Id<Mount> id, Instant at) {
    const Mount* mount = edit.document().find(id);
    if (!mount) return;
    Mount placed = *mount;
    placed.at = at;
    placed.atAssumed = false;
    placed.block = dateText(at);
    edit.put(placed);
    if (const Bench* bench = benchOf(edit.document(), placed)) orderByTime(edit, bench->id);
}

} // namespace ibuki
