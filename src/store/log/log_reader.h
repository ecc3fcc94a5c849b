// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Log bytes → trace. The text is scanned once in place; only columns that are wanted are turned into numbers.
// What was found on the way (how it is written, what each column is, troubles by line) is told beside it.

#include "core/trace/trace.h"
#include "store/log/log_report.h"

#include <filesystem>

namespace ibuki {

struct LogReading {
    Trace trace;
    LogReport report;
    std::vector<bool> keptRows; ///< of the log's rows, those that the trace has
};

/// Throws InputError (log-empty, not-text, log-not-a-log, log-no-time, log-no-samples, log-no-channels,
/// log-no-temperature, log-ragged, log-columns, log-long) with the file's name and, where they apply, line
/// and column.
LogReading readLogReported(std::string_view bytes, const std::string& fileName,
                           const LogOptions& options = {});
Trace readLog(std::string_view bytes, const std::string& fileName, const LogOptions& options = {});
Trace readLogFile(const std::filesystem::path& path, const LogOptions& options = {});

/// Rows of one channel that stand together.
struct ChannelBlock {
    std::size_t channel = 0; ///< place among the trace's channels
    std::size_t block = 0;   ///< from 0
    std::vector<double> values;
    std::vector<std::string> words; ///< of a column without numbers; then values is empty
};

/// The channels that readLog leaves out (those without a role), block by block over the rows that it kept, so
/// that no more than `blockRows` rows of them are ever in memory. Throws what readLog throws.
void streamOtherChannels(std::string_view bytes, const std::string& fileName, const LogOptions& options,
                         const std::vector<bool>& keptRows, std::size_t blockRows,
                         const std::function<void(const ChannelBlock&)>& sink);

} // namespace ibuki
