// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/earlier_rises.h"

#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "core/setup/run_setup.h"

namespace ibuki {

EarlierRises earlierRises(const Project& project, Id<Study> study, std::optional<Id<Slot>> slot,
                          Metric metric, const std::stop_token& stop) {
    const Document& document = project.document();
    auto earlier = std::make_shared<std::vector<EarlierRise>>();
    for (const EarlierRun& one : earlierRuns(document, study, slot)) {
        if (stop.stop_requested()) break;
        const Run& run = *document.find(one.run);
        const Mount& mount = *document.find(run.mount);
        const LoadReduction* load = loadOf(*reductionOf(document, run.id), run, metric);
        if (!load) continue;
        const Trace trace = project.loadWithProbe(run.recording, document.find(run.recording)->probeShiftS);
        earlier->push_back({mount.id, mount.name, mount.rejected || run.rejected, one.sameLevel,
                            riseCurve(trace, *load, metric)});
    }
    return earlier;
}

} // namespace ibuki
