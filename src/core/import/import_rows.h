// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Where logs that are brought in belong, as far as their names, their times and the plan tell: a proposal a
// log, for the user to change.

#include "core/base/message.h"
#include "core/domain/edit.h"
#include "core/domain/run_reduction.h"
#include "core/domain/study.h"
#include "core/trace/trace.h"

namespace ibuki {

/// A log that was read and reduced, before anybody said where it belongs.
struct ImportedLog {
    std::string fileName; ///< without folders
    std::string sha256;
    std::int64_t bytes = 0;
    std::optional<Instant> fileTime; ///< last change of the file, for logs without a date
    Message readAs;                  ///< how the text was read, for the record
    Trace trace;
    ReduceSettings settings; ///< that the reduction was made with
    Reduction reduction;
};

/// One line of the import table; the user may change every member.
struct ImportRow {
    bool take = true;
    std::optional<Id<Level>> level;
    std::optional<Id<Level>> second; ///< of the second factor, where there is one
    SlotKind kind = SlotKind::level;
    std::optional<Id<Slot>> slot;       ///< that a new mount fills; nothing: the first one that fits
    std::optional<std::size_t> probeOf; ///< it is the room probe of that log, and no mount of its own
    std::optional<Id<Mount>> mount;     ///< an existing mount (a repeated run); nothing: a new mount
    std::string mountName;              ///< of a new mount
    std::optional<Instant> at;
    bool atAssumed = false;
    std::optional<Id<Recording>> sameAs; ///< a recording with the same bytes is there already
    std::optional<std::size_t> twinOf;   ///< an earlier log of these has the same bytes
    std::optional<Message> doubt;        ///< why the row wants a look, or empty
};

/// Levels: those whose names share the most letters, word by word, with the file name; where it names none,
/// the plan's next open slots in the order of time. Time: the log's own, else the file's, marked assumed.
/// Rows are proposed in the order of the logs.
/// A log that reads the room and no chip is the probe of the log that it shares the most time with.
std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs);

/// What a new mount of the row's level is called: the level and the next number that neither the study nor
/// another row has. Of the file when no level is known.
std::string nextMountName(const Document& document, Id<Study> study, const std::vector<ImportRow>& rows,
                          std::size_t row);

/// Which log each log is the room probe of; nothing for a log of a chip, or where none fits.
std::vector<std::optional<std::size_t>> probesAmong(const std::vector<ImportedLog>& logs);

/// The rows' indexes by time; those without one last.
std::vector<std::size_t> rowsByTime(const std::vector<ImportRow>& rows);

/// Planned slots of the study that nothing fills yet, in order.
std::vector<const Slot*> openSlots(const Document& document, Id<Study> study);
/// The slot is for what the row says it is.
bool fits(const Slot& slot, const ImportRow& row);

} // namespace ibuki
