// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the lines of a log hold, told from its beginning and its end before any sample is read: how it is
// written, what each column is, which of them tell the time.

#include "core/trace/trace.h"
#include "store/log/log_report.h"

namespace ibuki {

struct LogLayout {
    Dialect dialect;
    TimeReading time;
    std::vector<RoleGuess> roles;                  ///< of every column; 1 where the user said so
    std::string fingerprint;                       ///< of the header, see fingerprint.h
    RoleMap stated;                                ///< what the options say of its columns
    std::vector<Channel> channels;                 ///< of every column, without samples
    std::vector<std::vector<std::string>> rows;    ///< cells of the beginning and the end
    std::vector<long> previewLines;                ///< of the first rows, in the scanned text
    std::vector<std::vector<std::string>> preview; ///< their cells
};

/// Throws InputError (log-empty, log-not-a-log, log-no-samples, log-no-time).
LogLayout layOut(std::string_view text, const LogOptions& options, const LogNotes& notes);

} // namespace ibuki
