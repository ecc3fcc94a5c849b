// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Logs on their way into a project: what the window and the command do once it is settled where they belong.

#include "core/import/import.h"
#include "store/log/log_batch.h"
#include "store/project/channel_keeper.h"
#include "store/project/project.h"

namespace ibuki {

/// One action, and what is stored with it.
struct LogImport {
    ChangeSet set; ///< recordings, mounts, runs, figures, and what was said of the logs' columns
    Acquired acquired;
    std::vector<KeepTask> toKeep; ///< the logs whose other channels are kept afterwards
    std::vector<std::pair<std::size_t, Id<Recording>>> recordingOf; ///< index into the logs → new recording
};

/// What `importChanges` makes of the rows. Throws as it does.
LogImport importOf(const Document& document, Id<Study> study, const LogBatch& batch,
                   const std::vector<ImportRow>& rows);

} // namespace ibuki
