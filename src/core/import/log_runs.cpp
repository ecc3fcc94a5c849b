// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_runs.h"

#include "core/domain/lookup.h"
#include "core/import/entered_reading.h"
#include "core/import/found_loads.h"

#include <algorithm>

namespace ibuki {
namespace {

/// 1 for the first run of its mount and load.
int placeOf(const Document& document, const Run& run) {
    int place = 1;
    for (const Run* other : runsOf(document, run.mount))
        if (other->id != run.id && other->load == run.load) ++place;
    return place;
}

void addFigures(Edit& edit, const Run& run, const ReducedLog& log) {
    ReduceSettings settings = log.settings;
    settings.hand.load = run.loadIndex;
    edit.add(RunReduction::with({}, run.id, log.reduction, settings));
}

} // namespace

void addRunsOf(Edit& edit, const Run& first, std::optional<Id<Study>> study, const ReducedLog& log) {
    std::vector<Id<Load>> steps;
    if (study) steps = loadsFor(edit, *study, log.reduction);
    if (study && steps.empty()) steps = {loadOfSilentLog(edit, *study)};
    const auto& loads = log.reduction.loads;
    for (std::size_t i = 0; i < std::max<std::size_t>(1, loads.size()); ++i) {
        Run run = first;
        if (i > 0) run.id = {};
        run.loadIndex = loads.size() > 1 ? static_cast<int>(i) : -1;
        run.load = i < steps.size() ? std::optional(steps[i]) : std::nullopt;
        run.repeat = placeOf(edit.document(), run);
        if (run.id.value > 0)
            edit.put(run);
        else
            run.id = edit.add(run);
        addFigures(edit, run, log);
        if (i < loads.size()) addColumnReadings(edit, run, log.trace, loads[i]);
    }
}

} // namespace ibuki
