// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Log bytes → trace. The text is scanned once in place; only columns that are wanted are turned into numbers.
// What was found on the way (how it is written, what each column is, troubles by line) is told beside it.

#include "core/trace/trace.h"
#include "store/log/dialect.h"
#include "store/log/time_reading.h"

#include <filesystem>
#include <functional>
#include <stop_token>
#include <string_view>

namespace ibuki {

struct LogOptions {
    bool allChannels = false; ///< keep columns without a role too (for import)
    bool roomOnly = false;    ///< a room probe's log: temperatures without a place are the room
    RoleMap roles;            ///< overrides, by header
    DialectWish dialect;      ///< overrides of what is found
    TimeWish time;
    std::stop_token stop;                 ///< asked for now and then; readLog then throws Cancelled
    std::function<void(double)> progress; ///< told now and then, 0 to 1; may be empty
};

/// A read that was called off; not an error.
struct Cancelled {};

/// Something that was mended or left out, with the line of the file it stands in.
struct LogProblem {
    std::optional<long> line;
    std::string what;
    bool operator==(const LogProblem&) const = default;
};

struct LogReport {
    Dialect dialect;
    TimeReading time;
    std::vector<RoleGuess> roles;                  ///< of every column; 1 where the user said so
    std::string fingerprint;                       ///< of the header, see fingerprint.h
    std::vector<long> previewLines;                ///< of the first rows
    std::vector<std::vector<std::string>> preview; ///< their cells as they were read
    std::vector<LogProblem> problems;              ///< at most mostProblems, in order of line
    long furtherProblems = 0;                      ///< beyond those
    bool jsonLines = false;
};
inline constexpr std::size_t mostProblems = 200;

struct LogReading {
    Trace trace;
    LogReport report;
};

/// Throws InputError (log-empty, not-text, log-not-a-log, log-no-time, log-no-samples, log-no-channels,
/// log-ragged) with the file's name and, where they apply, line and column.
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

/// The channels that readLog leaves out (those without a role), block by block over the same rows, so that no
/// more than `blockRows` rows of them are ever in memory. Throws what readLog throws.
void streamOtherChannels(std::string_view bytes, const std::string& fileName, const LogOptions& options,
                         std::size_t blockRows, const std::function<void(const ChannelBlock&)>& sink);

/// "semicolons, decimal comma, header in line 4, date and clock apart, day.month.year": how it was read.
std::string readAsText(const LogReport& report);

} // namespace ibuki
