// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/import.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/import/log_runs.h"
#include "core/import/planned_mount.h"
#include "core/import/stated_figures.h"
#include "core/setup/question_setup.h"

#include <algorithm>

namespace ibuki {
namespace {

Id<Recording> addRecording(Edit& edit, Id<Bench> bench, const ImportedLog& log, const ImportRow& row) {
    Recording recording;
    recording.bench = bench;
    recording.fileName = log.fileName;
    recording.sha256 = log.sha256;
    recording.bytes = log.bytes;
    recording.start = row.when ? row.when : log.trace.start ? log.trace.start : row.at;
    recording.startAssumed = !row.when && !log.trace.start;
    recording.readAs = log.readAs;
    recording.samples = static_cast<std::int64_t>(log.trace.samples());
    recording.durationS = log.trace.durationS();
    if (log.figures) recording.state = RecordingState::figures;
    return edit.add(recording);
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

Id<Level> levelAdded(Edit& edit, const Question& question, const ImportRow& row) {
    const auto tokens = nameTokens(row.newLevel);
    for (const Level* level : levelsOf(edit.document(), question.id))
        if (nameTokens(level->name) == tokens) return level->id;
    Level level;
    level.question = question.id;
    level.name = row.newLevel;
    level.material = row.newMaterial;
    return addLevel(edit, level);
}

/// What is said of the mount beside its place.
void sayOfMount(Edit& edit, Id<Mount> id, const ImportRow& row) {
    if (row.rejected.empty() && row.remark.empty()) return;
    Mount mount = *edit.document().find(id);
    if (!row.rejected.empty()) {
        mount.rejected = true;
        mount.reason = row.rejected;
    }
    if (!row.remark.empty()) mount.note += (mount.note.empty() ? "" : "\n") + row.remark;
    edit.put(mount);
}

/// Carries rows out, in the order of time: what goes on with a mount comes after it.
class Carrier {
public:
    Carrier(Edit& edit, const Study& study, const Question& question, const std::vector<ImportRow>& rows)
        : edit_(edit), study_(study), question_(question), rows_(rows) {}

    /// Its mount, made by the first row of it.
    Id<Mount> mountFor(std::size_t i) {
        const ImportRow& row = rows_[i];
        if (row.mount) return *row.mount;
        for (const auto& [other, mount] : made_)
            if (isOneMount(rows_[other], row)) return mount;
        ImportRow placed = row;
        if (row.at && row.ageH) placed.at = laterBy(*row.at, -3'600 * *row.ageH);
        const Id<Mount> mount = addPlannedMount(edit_, edit_.document(), study_, question_, placed);
        made_.emplace_back(i, mount);
        return mount;
    }

    Run runOf(std::size_t i, Id<Mount> mount, Id<Recording> recording) const {
        const ImportRow& row = rows_[i];
        Run run;
        run.mount = mount;
        run.recording = recording;
        run.repeat = row.run.value_or(0);
        run.statedAgeH = row.ageH;
        run.statedCycles = row.cycles;
        run.rejected = row.excluded;
        if (row.excluded) run.reason = row.remark.empty() ? "excluded" : row.remark;
        if (row.room) {
            run.enteredAmbient = Celsius{row.room->temperatureC};
            run.enteredAmbientU = Kelvin{row.room->uncertaintyK};
        }
        return run;
    }

private:
    Edit& edit_;
    const Study& study_;
    const Question& question_;
    const std::vector<ImportRow>& rows_;
    std::vector<std::pair<std::size_t, Id<Mount>>> made_;
};

} // namespace

ImportChanges importChanges(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                            const std::vector<ImportRow>& stated) {
    const Study* of = document.find(study);
    const Question* question = of ? firstQuestion(document, study) : nullptr;
    if (!question || !currentConfiguration(document, of->bench)) throw InputError("import-no-bench", {});
    std::vector<ImportRow> rows = stated;
    const auto taken = std::count_if(rows.begin(), rows.end(), [](const ImportRow& row) { return row.take; });
    Edit edit(document, Message{"edit-import", {{"count", taken}}});
    for (ImportRow& row : rows) // in the order in which they were named
        if (row.take && !row.probeOf && !row.mount && !row.level && !row.newLevel.empty())
            row.level = levelAdded(edit, *question, row);
    ImportChanges changes;
    Carrier carrier(edit, *of, *question, rows);
    for (std::size_t i : rowsByTime(rows)) {
        const ImportRow& row = rows[i];
        if (!row.take) continue;
        if (!row.probeOf) refuseWithoutLevel(row, *question, logs[i].fileName);
        const Id<Recording> recording = addRecording(edit, of->bench, logs[i], row);
        changes.recordings.emplace_back(i, recording);
        if (row.probeOf) continue;
        const Id<Mount> mount = carrier.mountFor(i);
        sayOfMount(edit, mount, row);
        addRunsOf(edit, carrier.runOf(i, mount, recording), study,
                  {logs[i].trace, logs[i].reduction, logs[i].settings}, row.runs);
        addStatedReadings(edit, recording, logs[i]);
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
