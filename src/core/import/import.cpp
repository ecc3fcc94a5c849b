// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/import.h"

#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/import/log_runs.h"
#include "core/import/planned_mount.h"

#include <algorithm>

namespace ibuki {
namespace {

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
        Run run;
        run.mount = mount;
        run.recording = recording;
        addRunsOf(edit, run, study, {logs[i].trace, logs[i].reduction, logs[i].settings});
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
