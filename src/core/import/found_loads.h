// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/domain/edit.h"
#include "core/domain/study.h"
#include "core/import/import_rows.h"
#include "core/reduce/reduction.h"

#include <vector>

namespace ibuki {

/// The step of the study that each load of a log is: the planned one that its power fits best, within 15 %,
/// else one of that power that is added; loads of nearly one power are cycles of one step.
std::vector<Id<Load>> loadsFor(Edit& edit, Id<Study> study, const Reduction& reduction);

/// The step of a log in which no load was found.
Id<Load> loadOfSilentLog(Edit& edit, Id<Study> study);

/// The load as it was chosen for a run, added where the study has none of that name.
Id<Load> loadChosen(Edit& edit, Id<Study> study, const RunChoice& choice);

} // namespace ibuki
