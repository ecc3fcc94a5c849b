// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the bench's record gains when logs are brought in: a proposal a file (level, mount, time), and the one
// change set that carries all of them out.

#include "core/domain/edit.h"

namespace ibuki {

/// A log that was read and reduced, before anybody said where it belongs.
struct ImportedLog {
    std::string fileName; ///< without folders
    std::string sha256;
    std::int64_t bytes = 0;
    std::optional<Instant> fileTime; ///< last change of the file, for logs without a date
    Trace trace;
    Reduction reduction;
};

/// One line of the import table; the user may change every member.
struct ImportRow {
    bool take = true;
    std::optional<Id<Level>> level;
    SlotKind kind = SlotKind::level;
    std::optional<Id<Mount>> mount; ///< an existing mount (a repeated run); nothing: a new mount
    std::string mountName;          ///< of a new mount
    std::optional<Instant> at;
    bool atAssumed = false;
    std::optional<Id<Recording>> sameAs; ///< a recording with the same bytes is there already
    std::string doubt;                   ///< why the row wants a look, or empty
};

/// Level: the one whose name shares the most letters, word by word, with the file name. Time: the log's own,
/// else the file's, marked assumed. Rows are proposed in the order of the logs.
std::vector<ImportRow> proposeImport(const Document& document, Id<Study> study,
                                     const std::vector<ImportedLog>& logs);

struct ImportChanges {
    ChangeSet set;
    std::vector<std::pair<std::size_t, Id<Recording>>> recordings; ///< index into the logs → new recording
};

/// Recordings, mounts, applications, runs, reductions and slots of the rows taken. New mounts take their
/// place in the record by time. Throws InputError (import-no-level, import-no-bench) naming the file.
ImportChanges importChanges(const Document& document, Id<Study> study, const std::vector<ImportedLog>& logs,
                            const std::vector<ImportRow>& rows);

/// States when a mount was made; the bench's record is put in order again.
void placeMountAt(Edit& edit, Id<Mount> mount, Instant at);

} // namespace ibuki
