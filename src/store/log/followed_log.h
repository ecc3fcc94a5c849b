// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A log that another program is still writing, read as it grows: every complete line once, all columns, on
// the log's own clock. Nothing of the time axis is repaired; a clock that goes back stands still, one that
// begins anew (a restart, midnight without a date) goes on.

#include "core/trace/timed_row.h"
#include "store/log/log_layout.h"

#include <optional>
#include <string>
#include <vector>

namespace ibuki {

class FollowedLog {
public:
    explicit FollowedLog(std::string fileName, LogOptions options = {});

    /// Bytes that were appended, as they came; a line that is not finished waits for its rest.
    void feed(std::string_view bytes);
    /// The file begins anew (rotated, truncated): what was not finished is lost.
    void restart();
    /// No more is to be expected for now: takes what there is for a log, even of one row.
    void layOutNow() {
        if (!layout_) layOutHead(1);
    }
    /// What was not finished is left out; the next bytes begin a line of the same file.
    void restartLine() { rest_.clear(); }

    /// Every column but the time; empty until column names and rows were seen.
    const std::vector<Channel>& channels() const { return channels_; }
    /// Rows that became complete, in order.
    std::vector<TimedRow> take();
    std::int64_t badRows() const { return badRows_; }       ///< lines that are no rows, so far
    std::optional<Instant> start() const { return start_; } ///< of the first row, when it has a date

private:
    void layOutHead(std::size_t leastRows);
    void scan(std::string_view lines);
    long scanTable(const std::string& text, const LogLayout& layout, bool headIncluded);
    double onOwnClock(double stampS);
    std::string decoded(std::string_view bytes);

    std::string fileName_;
    LogOptions options_;
    std::string raw_;  ///< of UTF-16: what is not yet decoded, with its mark
    std::string rest_; ///< of a line that is not finished
    std::string head_; ///< complete lines until the layout is known; then up to the first row
    bool utf16_ = false;
    bool begun_ = false;
    bool jsonLines_ = false;
    bool repeatsHead_ = false; ///< after a restart the column names may come again
    std::optional<LogLayout> layout_;
    std::vector<Channel> channels_;
    std::vector<std::size_t> columns_; ///< of the channels
    std::vector<TimedRow> rows_;
    std::optional<double> firstStampS_;
    double addS_ = 0; ///< for a clock that began anew
    double lastS_ = 0;
    double stepS_ = 1;
    std::int64_t badRows_ = 0;
    std::optional<Instant> start_;
};

} // namespace ibuki
