// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Which stored reductions have to be made again after a change, and with which settings. Pure values: the
// work itself can go to another thread.

#include "core/domain/document.h"
#include "core/domain/study.h"
#include "core/reduce/settings.h"

#include <span>
#include <vector>

namespace ibuki {

struct ReductionTask {
    Id<RunReduction> reduction;
    Id<Run> run;
    Id<Recording> recording;
    ReduceSettings settings;
    std::optional<double> probeShiftS; ///< of the recording's room probe, where it is stated
};

/// One task for each stored reduction of these runs, under the question's settings (may be nullptr).
std::vector<ReductionTask> reductionTasks(const Document& document, std::span<const Run* const> runs,
                                          const Question* question);

/// One task for each stored reduction of the mounts of the question's study.
std::vector<ReductionTask> reductionTasks(const Document& document, const Question& question);

} // namespace ibuki
