// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_runs.h"

#include "core/domain/lookup.h"
#include "core/import/entered_reading.h"
#include "core/import/found_loads.h"

#include <algorithm>
#include <set>

namespace ibuki {
namespace {

/// The first number that no run of its mount, load and purpose has.
int placeOf(const Document& document, const Run& run) {
    std::set<int> taken;
    for (const Run* other : runsOf(document, run.mount))
        if (other->id != run.id && other->load == run.load && other->purpose == run.purpose)
            taken.insert(other->repeat);
    int place = 1;
    while (taken.contains(place)) ++place;
    return place;
}

std::vector<Id<Load>> stepsOf(Edit& edit, Id<Study> study, const Reduction& reduction,
                              const std::vector<RunChoice>& choices) {
    std::vector<Id<Load>> steps;
    for (const RunChoice& choice : choices) steps.push_back(loadChosen(edit, study, choice));
    if (steps.empty()) steps = loadsFor(edit, study, reduction);
    if (steps.empty()) steps = {loadOfSilentLog(edit, study)};
    return steps;
}

void addFigures(Edit& edit, const Run& run, const ReducedLog& log) {
    ReduceSettings settings = log.settings;
    settings.hand.load = run.loadIndex;
    edit.add(RunReduction::with({}, run.id, log.reduction, settings));
}

} // namespace

void addRunsOf(Edit& edit, const Run& first, std::optional<Id<Study>> study, const ReducedLog& log,
               const std::vector<RunChoice>& choices) {
    std::vector<Id<Load>> steps;
    if (study) steps = stepsOf(edit, *study, log.reduction, choices);
    const auto& loads = log.reduction.loads;
    for (std::size_t i = 0; i < std::max<std::size_t>(1, loads.size()); ++i) {
        Run run = first;
        if (i > 0) run.id = {};
        run.loadIndex = loads.size() > 1 ? static_cast<int>(i) : -1;
        run.load = i < steps.size() ? std::optional(steps[i]) : std::nullopt;
        if (i < choices.size()) run.purpose = choices[i].purpose;
        if (first.repeat <= 0 || choices.empty()) run.repeat = placeOf(edit.document(), run);
        if (run.id.value > 0)
            edit.put(run);
        else
            run.id = edit.add(run);
        addFigures(edit, run, log);
        if (i < loads.size()) addColumnReadings(edit, run, log.trace, loads[i]);
    }
}

} // namespace ibuki
