// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Figures without a log: noted off a screen, or out of an old notebook. They take the place of a log's
// reduction, so that everything which needs no curve treats them as a run like any other.

#include "core/import/import_rows.h"

namespace ibuki {

/// A stand-in for the log: the reduction that says what is stated and nothing else, flagged no-log, and
/// ambient-missing where the difference over the room cannot be told.
ImportedLog logOfFigures(const StatedRow& row, Metric metric);

/// Figures with another room, or none: differences follow from the temperatures that are known, and stay
/// where only they were stated.
void putRoomOfFigures(Reduction& reduction, std::optional<double> roomC);

/// Readings that were stated of figures become readings of the recording's run.
void addStatedReadings(Edit& edit, Id<Recording> recording, const ImportedLog& log);

/// The run that has the same figures, time and readings under the same mount, load and purpose already.
std::optional<Id<Run>> runOfFigures(const Document& document, Id<Mount> mount, Id<Load> load,
                                    const ImportedLog& log, const ImportRow& row);

} // namespace ibuki
