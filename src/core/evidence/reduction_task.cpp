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
            tasks.push_back({stored->id, run->id, run->recording, settingsFor(document, *run, question),
                             recording ? recording->probeShiftS : std::nullopt});
        }
    return tasks;
}

namespace {

bool saysWordsOfThen(const Reduction& reduction) {
    const auto inWords = [](const Flag& flag) { return flag.message.code == "said"; };
    return std::any_of(reduction.flags.begin(), reduction.flags.end(), inWords)
           || std::any_of(reduction.loads.begin(), reduction.loads.end(), [&](const LoadReduction& load) {
                  return std::any_of(load.flags.begin(), load.flags.end(), inWords);
              });
}

} // namespace

std::vector<ReductionTask> reductionsOfOlderVersions(const Document& document) {
    std::vector<ReductionTask> tasks;
    for (const auto& [id, stored] : document.all<RunReduction>()) {
        const Run* run = document.find(stored.run);
        const bool older = stored.reduction.others.empty() || stored.reduction.course.atS.empty()
                           || saysWordsOfThen(stored.reduction);
        if (!run || !stored.reduction.main() || !older) continue;
        const auto slots = document.where(&Slot::mount, run->mount);
        const Question* question = slots.empty() ? nullptr : firstQuestion(document, slots.front()->study);
        for (const ReductionTask& task : reductionTasks(document, std::span(&run, 1), question))
            tasks.push_back(task);
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
