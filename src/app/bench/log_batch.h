// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reading a batch of log files for import: pure work for a job, no widgets.

#include "app/shell/job.h"
#include "core/record/import.h"

#include <QStringList>
#include <vector>

namespace ibuki {

struct LogBatch {
    std::vector<ImportedLog> logs;
    std::vector<std::string> refused; ///< one sentence a file that could not be read
};

/// Reads, hashes and reduces each file; a file that cannot be used is named in `refused` and the others go
/// on.
LogBatch readLogBatch(const std::vector<std::string>& files, const ReduceSettings& settings,
                      std::stop_token stop, const Progress& progress);

} // namespace ibuki
