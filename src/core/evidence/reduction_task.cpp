// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/reduction_task.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/evidence/response.h"

#include <algorithm>

namespace ibuki {

std::vector<ReductionTask> reductionTasks(const Document& document, std::span<const Run* const> runs,
                                          const Question* question) {
    std::vector<ReductionTask> tasks;
    for (const Run* run : runs)
        for (const RunReduction* stored : document.where(&RunReduction::run, run->id)) {
            const Recording* recording = document.find(run->recording);
            if (recording && recording->state == RecordingState::figures) continue; // there is no log
            tasks.push_back({stored->id, run->id, run->recording, settingsFor(document, *run, question),
                             recording ? recording->probeShiftS : std::nullopt});
        }
    return tasks;
}

std::vector<ReductionTask> reductionTasks(const Document& document, const Question& question) {
    std::vector<const Run*> runs;
    for (const Slot* slot : slotsOf(document, question.study)) {
        if (!slot->mount) continue;
        const auto ofMount = runsOf(document, *slot->mount);
        runs.insert(runs.end(), ofMount.begin(), ofMount.end());
    }
    return reductionTasks(document, runs, &question);
}

} // namespace ibuki
