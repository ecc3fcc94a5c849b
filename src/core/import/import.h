// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the bench's record gains when logs are brought in: the one change set that carries all rows out.

#include "core/domain/study.h"
#include "core/import/import_rows.h"

namespace ibuki {

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
