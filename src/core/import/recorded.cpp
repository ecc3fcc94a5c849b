// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/recorded.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "core/import/log_runs.h"
#include "core/import/planned_mount.h"
#include "core/plan/mount_brief.h"
#include "core/reduce/reduce.h"

#include <algorithm>
#include <fmt/format.h>

namespace ibuki {
namespace {

/// What a stop holds is not mounted; what only waits for an answer is not either.
void refuseHeld(const MountBrief& brief) {
    if (brief.blocking.empty()) return;
    throw InputError("record-held", {}, {{"mount", brief.title}});
}

Id<Mount> mountOfSlot(Edit& edit, const Document& before, const Slot& slot, const RecordingWish& wish) {
    if (slot.mount || !slot.skippedBecause.empty()) throw InputError("record-slot", {});
    const Study& study = *before.find(slot.study);
    const Question* question = firstQuestion(before, study.id);
    const MountBrief brief = briefOf(before, slot, wish.at);
    if (!question || !currentConfiguration(before, study.bench)) throw InputError("import-no-bench", {});
    refuseHeld(brief);
    ImportRow row;
    row.slot = slot.id;
    row.kind = slot.kind;
    row.level = slot.level;
    row.second = slot.second;
    row.at = wish.at;
    row.mountName = wish.name.empty() ? dateTimeText(wish.at) : wish.name;
    row.mountName = nextMountName(before, study.id, {row}, 0);
    const Id<Mount> mount = addPlannedMount(edit, before, study, *question, row);
    if (const Application* made = applicationAt(edit.document(), mount, question->site);
        made && wish.manualWorkBegan) {
        Application applied = *made;
        applied.start = wish.manualWorkBegan;
        applied.end = wish.at;
        edit.put(applied);
    }
    orderByTime(edit, study.bench);
    beginMeasuring(edit, study);
    return mount;
}

} // namespace

std::optional<Id<Study>> studyOf(const Document& document, Id<Mount> mount) {
    const auto slots = document.where(&Slot::mount, std::optional(mount));
    return slots.empty() ? std::nullopt : std::optional(slots.front()->study);
}

RecordingBegun beginRecording(const Document& document, const RecordingWish& wish) {
    Recording recording;
    recording.bench = wish.bench;
    recording.start = wish.at;
    recording.readAs = Message{"recorded", {{"sources", wish.sources}}};
    recording.state = RecordingState::open;
    Edit edit(document, Message{});
    RecordingBegun begun;
    begun.mount = wish.mount;
    const Slot* slot = document.find(wish.slot);
    if (slot) begun.mount = mountOfSlot(edit, document, *slot, wish);
    const Mount* mount = edit.document().find(begun.mount);
    recording.fileName =
        fmt::format("{} {}", mount ? mount->name : document.find(wish.bench)->name, dateTimeText(wish.at));
    begun.recording = edit.add(recording);
    if (mount) {
        Run run;
        run.mount = mount->id;
        run.recording = begun.recording;
        run.purpose = slot && slot->kind == SlotKind::baseline ? Purpose::baseline : Purpose::fresh;
        if (const FollowUp* later = document.find(wish.followUp)) {
            run.purpose = Purpose::check;
            FollowUp done = *later;
            done.done = true;
            edit.put(done);
        }
        run.repeat = static_cast<int>(runsOf(document, mount->id).size()) + 1;
        edit.add(run);
    }
    begun.set = edit.finish();
    begun.set.title = Message{"edit-record", {{"name", recording.fileName}}};
    return begun;
}

ChangeSet endRecording(const Document& document, Id<Recording> id, const RecordedExtent& extent,
                       const Trace* trace) {
    Recording recording = *document.find(id);
    recording.samples = extent.samples;
    recording.durationS = extent.durationS;
    if (recording.state == RecordingState::open) recording.state = RecordingState::closed;
    if (extent.start) recording.start = extent.start;
    Edit edit(document, Message{"edit-record-end", {{"name", recording.fileName}}});
    edit.put(recording);
    const auto runs = document.where(&Run::recording, id);
    if (trace && !runs.empty() && extent.samples > 1) {
        try {
            const Run run = *runs.front();
            const auto study = studyOf(document, run.mount);
            const ReduceSettings settings =
                settingsFor(document, run, study ? firstQuestion(document, *study) : nullptr);
            const Reduction reduction = reduceByEveryMetric(*trace, settings);
            addRunsOf(edit, run, study, {*trace, reduction, settings});
        } catch (const InputError&) { // nothing to be told from it; the recording stays
        }
    }
    return edit.finish();
}

std::vector<Id<Recording>> recordingsWithoutFigures(const Document& document) {
    std::vector<Id<Recording>> found;
    for (const auto& [id, recording] : document.all<Recording>()) {
        const bool here = recording.readAs.code == "recorded" && recording.state != RecordingState::open;
        if (!here || recording.withdrawn || recording.samples < 2) continue;
        const auto runs = document.where(&Run::recording, id);
        if (runs.size() == 1 && !reductionOf(document, runs.front()->id)) found.push_back(id);
    }
    return found;
}

} // namespace ibuki
