// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Reading a batch of log files for import.

#include "core/base/input_error.h"
#include "core/base/progress.h"
#include "core/domain/run_reduction.h"
#include "core/import/import.h"
#include "store/log/log_reader.h"
#include "store/log/mapped_file.h"

#include <map>
#include <stop_token>
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
    std::vector<InputError> refused; ///< one a file that could not be read
    std::vector<std::optional<std::size_t>>
        reducedBeside; ///< log → the probe that its reduction has as its room
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

/// What holds for logs of this configuration (nullptr: none yet) that are brought into this study.
BatchRules batchRules(const Document& document, const Configuration* configuration,
                      std::optional<Id<Study>> study);

/// Reads, hashes and reduces each file, several at a time; progress is told from their threads, one after the
/// other; a file that cannot be used is named in `refused` and the others go
/// on. Logs of the room alone are laid beside the log they belong to before that is reduced. Throws
/// Cancelled.
LogBatch readLogBatch(const std::vector<std::string>& files, const BatchRules& rules,
                      const std::stop_token& stop, const Progress& progress);

/// Lays logs of the room alone beside the logs they belong to, and reduces these again.
void layProbes(LogBatch& batch);

/// One file with what the user states of it. Throws InputError, Cancelled.
ReadLog readOneLog(const std::string& path, const BatchRules& rules, LogOptions options,
                   std::stop_token stop);

/// Puts a log that was read anew, beside the probe given, in the place of one of the batch.
void replaceLog(LogBatch& batch, std::size_t at, ReadLog read, std::optional<std::size_t> probe);

/// Reduces a log again, with the room probe given (nullptr: its own room).
void reduceWith(ImportedLog& log, const ImportedLog* probe);

/// Reduces a log again with a room temperature that was stated; false, and nothing is done, for one that has
/// a room of its own.
bool reduceWithRoom(ImportedLog& log, const EnteredAmbient& room);

/// Which of the rows taken is the room probe of a log.
std::optional<std::size_t> probeOf(const std::vector<ImportRow>& rows, std::size_t log);

/// A log whose room probe is another one now, or none any more.
struct ProbeChange {
    std::size_t log = 0;
    std::optional<std::size_t> probe;
    ImportedLog data;
    std::optional<ImportedLog> room;
};
std::vector<ProbeChange> probeChanges(const LogBatch& batch, const std::vector<ImportRow>& rows);
/// Reduces them again. Throws Cancelled.
void reduceChanges(std::vector<ProbeChange>& changes, const std::stop_token& stop, const Progress& progress);
void takeChanges(LogBatch& batch, std::vector<ProbeChange> changes);

} // namespace ibuki
