// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a run of a planned mount goes through, and what it is watched by.

#include "core/conduct/conductor.h"
#include "core/conduct/run_monitor.h"
#include "core/domain/document.h"

namespace ibuki {

/// The study's protocol as it is run at its bench, without the hands.
std::vector<StepOccurrence> runSteps(const Document& document, Id<Study> study);

/// Remove, clean, apply and fasten for the slot, each ended by hand; none for a baseline.
std::vector<StepOccurrence> handSteps(const Document& document, const Slot& slot);

/// What the bench's sheet states and its earlier runs showed. Curves of earlier mounts are added by whoever
/// can read their recordings.
MonitorRules monitorRules(const Document& document, Id<Study> study);

/// The runs whose curves a new mount of the slot is held against and shown with: of the study, under its
/// loads, with figures. The latest first.
struct EarlierRun {
    Id<Run> run;
    bool sameLevel = false;
};
std::vector<EarlierRun> earlierRuns(const Document& document, Id<Study> study, std::optional<Id<Slot>> slot);

} // namespace ibuki
