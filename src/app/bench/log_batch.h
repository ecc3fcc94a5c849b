// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reading a batch of log files for import: pure work for a job, no widgets.

#include "app/jobs/job.h"
#include "core/domain/run_reduction.h"
#include "core/import/import.h"
#include "store/log/log_reader.h"
#include "store/log/mapped_file.h"

#include <QStringList>
#include <map>
#include <vector>

namespace ibuki {

/// Where a log came from and how it was read; beside the ImportedLog of the same index.
struct LogSource {
    std::string path;
    LogOptions options; ///< what the user stated of it
    LogReport report;
    std::vector<bool> keptRows;
    FileStamp stamp;
};

struct LogBatch {
    std::vector<ImportedLog> logs;
    std::vector<LogSource> sources;
    std::vector<std::string> refused; ///< one sentence a file that could not be read
};

/// One log of a batch, read anew.
struct ReadLog {
    ImportedLog log;
    LogSource source;
};

/// What reading needs to know beside the files.
struct BatchRules {
    ReduceSettings settings;
    std::map<std::string, RoleMap> remembered; ///< what the user said of such headers, by fingerprint
};

/// Reads, hashes and reduces each file; a file that cannot be used is named in `refused` and the others go
/// on. Logs of the room alone are laid beside the log they belong to before that is reduced.
LogBatch readLogBatch(const std::vector<std::string>& files, const BatchRules& rules, std::stop_token stop,
                      const Progress& progress);

/// One file with what the user states of it. Throws InputError, Cancelled.
ReadLog readOneLog(const std::string& path, const BatchRules& rules, LogOptions options,
                   std::stop_token stop);

/// Reduces a log again, with the room probe given (nullptr: its own room).
void reduceWith(ImportedLog& log, const ImportedLog* probe);

} // namespace ibuki
