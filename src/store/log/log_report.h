// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a reader of logs is told, and what it tells of a log beside the samples.

#include "core/base/message.h"
#include "core/base/progress.h"
#include "core/trace/role.h"
#include "store/log/dialect.h"
#include "store/log/time_reading.h"

#include <functional>
#include <stop_token>

namespace ibuki {

struct LogOptions {
    bool allChannels = false; ///< keep columns without a role too (for import)
    bool ambientOnly = false; ///< a room probe's log: temperatures without a place are the room
    RoleMap roles;            ///< overrides, by header
    std::map<std::string, RoleMap> rolesByHeader; ///< the same by fingerprint, where `roles` is empty
    DialectWish dialect;                          ///< overrides of what is found
    TimeWish time;
    std::stop_token stop; ///< asked for now and then; readLog then throws Cancelled
    Progress progress;    ///< told now and then; may be empty
};

/// Something that was mended or left out, with the line of the file it stands in.
struct LogProblem {
    std::optional<long> line;
    Message what;
    bool operator==(const LogProblem&) const = default;
};

struct LogReport {
    Dialect dialect;
    TimeReading time;
    std::vector<RoleGuess> roles;                  ///< of every column; 1 where the user said so
    std::string fingerprint;                       ///< of the header, see fingerprint.h
    RoleMap stated;                                ///< roles that the options state of this header
    std::vector<long> previewLines;                ///< of the first rows
    std::vector<std::vector<std::string>> preview; ///< their cells as they were read
    std::vector<LogProblem> problems;              ///< at most mostProblems, in order of line
    long furtherProblems = 0;                      ///< beyond those
    bool jsonLines = false;
};
inline constexpr std::size_t mostProblems = 200;

/// Troubles of one log, in the lines of its file; the scanned text may stand some lines off it.
class LogNotes {
public:
    /// lineShift: from a line of the scanned text to the file's.
    LogNotes(std::string file, long lineShift) : file_(std::move(file)), lineShift_(lineShift) {}

    long lineOfFile(long line) const { return line + lineShift_; }
    void note(std::optional<long> line, Message what);
    /// Throws InputError.
    [[noreturn]] void refuse(const char* code, Fields fields = {}, std::optional<long> line = {},
                             std::optional<long> column = {}) const;
    /// Puts what was noted into the report, in order of line.
    void handOver(LogReport& report);

private:
    std::string file_;
    long lineShift_;
    std::vector<LogProblem> problems_;
    long further_ = 0;
};

/// "semicolons, decimal comma, header in line 4, date and clock apart, day.month.year": how it was read.
Message readAs(const LogReport& report);

} // namespace ibuki
