// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// An evening brought in without anybody looking at the proposal: logs by their names, or a table of logs and
// figures, into a study that may have to be made (docs/cli.md, import).

#include "core/base/flag.h"
#include "store/project/log_import.h"

namespace ibuki {

/// What each log or figure is said to be, read but not yet given a place.
struct ReadEvening {
    LogBatch batch;                ///< logs and figures, in the order given
    std::vector<StatedRow> stated; ///< of each; empty: the names of the files say it
    std::vector<Flag> flags;
};

/// Reads logs. Throws InputError for the first that cannot be used.
ReadEvening readEvening(const std::vector<std::string>& logs, const BatchRules& rules);
/// Reads a table and the logs that it names, relative to itself. Throws InputError for what cannot be used,
/// with its row.
ReadEvening readEveningTable(const std::string& table, const BatchRules& rules);

struct EveningWish {
    std::optional<Id<Bench>> bench; ///< nothing: one is made
    std::string benchName;          ///< of that one
    std::optional<Id<Study>> study; ///< nothing: one is made
    std::string studyName;          ///< of that one
    Wording wording = plainly;
    Instant now;
};

/// One load of a log, or a figure, and what became of it.
struct BroughtRun {
    std::string file;           ///< empty: a figure
    std::optional<Id<Run>> run; ///< in `after`; nothing: a log of the room alone, or a copy of another
    std::vector<Flag> flags;
};

struct BroughtEvening {
    Id<Bench> bench;
    Id<Study> study;
    Document after; ///< as it will be
    LogImport import;
    std::vector<BroughtRun> runs; ///< in the order given
};

/// Throws InputError (import-no-level, import-no-bench). Nothing is written.
BroughtEvening prepareEvening(const Document& document, const EveningWish& wish, ReadEvening read);

/// The study on the bench that a run was added to last, else the newest; nothing without one.
std::optional<Id<Study>> studyUsedLast(const Document& document, Id<Bench> bench);

} // namespace ibuki
