// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evidence/power_sweep.h"

#include "core/base/input_error.h"

#include <map>
#include <set>

namespace ibuki {

PowerSweep powerSweep(const Question& question, const Evidence& evidence, std::optional<double> atW) {
    PowerSweep sweep;
    if (question.normalisation != Normalisation::raw) {
        sweep.reason = Message{"sweep-needs-kelvin", {}};
        return sweep;
    }
    int censored = 0;
    std::map<Id<Mount>, std::set<Id<Load>>> loads; // a mount under one load tells no line
    for (const RunRow& row : evidence.rows) {
        if (row.excluded || row.kind != SlotKind::level || !row.cell || !row.response || !row.powerW
            || row.purpose != Purpose::fresh)
            continue;
        if (row.censored) {
            ++censored;
            continue;
        }
        sweep.points.push_back({groupOf(evidence.design.cells[*row.cell]),
                                {row.mountId.value, row.mount},
                                *row.powerW,
                                *row.response});
        loads[row.mountId].insert(row.loadId);
    }
    std::erase_if(sweep.points,
                  [&](const SweepPoint& point) { return loads[Id<Mount>{point.mount.id}].size() < 2; });
    if (sweep.points.empty()) {
        sweep.reason = Message{"sweep-one-load", {}};
        return sweep;
    }
    SweepOptions options;
    options.at = atW;
    options.margin = question.margin.value;
    options.confidence = question.confidence;
    try {
        sweep.lines = sweepLines(sweep.points, options);
        if (censored > 0)
            addFlag(sweep.lines->flags, makeFlag(Severity::warn, "limit-bound.sweep", {{"count", censored}}));
    } catch (const InputError& error) {
        sweep.reason = error.message;
    }
    return sweep;
}

} // namespace ibuki
