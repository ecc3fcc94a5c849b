// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The runs of one log, whether it was brought in or recorded here.

#include "core/domain/edit.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/import/import_rows.h"
#include "core/trace/trace.h"

namespace ibuki {

/// A log as far as runs are made of it. It refers to what it is given.
struct ReducedLog {
    const Trace& trace;
    const Reduction& reduction;
    const ReduceSettings& settings; ///< that the reduction was made with
};

/// One run for each load that was found in the log, a single one where none was: with its load of the study
/// (none without a study), its place among the runs of its mount, load and purpose, the reduction, and what
/// the log's columns read. `first` (mount, recording, purpose) is what they have in common; where it has an
/// id it is in the record already, since its recording began, and becomes the run of the first load. choices:
/// of each load, where somebody said what it is.
void addRunsOf(Edit& edit, const Run& first, std::optional<Id<Study>> study, const ReducedLog& log,
               const std::vector<RunChoice>& choices = {});

} // namespace ibuki
