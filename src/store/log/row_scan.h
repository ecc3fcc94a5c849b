// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The lines of a log, one after the other: which of them are samples, and the cells of those.

#include "store/log/log_layout.h"

#include <span>
#include <unordered_set>

namespace ibuki {

class RowScan {
public:
    /// wanted: the channels that are looked at, besides the time. text, layout, options and notes must
    /// outlive it.
    RowScan(std::string_view text, const LogLayout& layout, std::vector<std::size_t> wanted,
            const LogOptions& options, LogNotes& notes);

    /// Goes on to the next line with a readable time; false at the end. What is left out on the way is noted.
    /// Throws Cancelled.
    bool next();

    // Of the row that next() came to.
    double stampS() const { return stampS_; } ///< on the log's own clock
    long line() const { return line_; }       ///< of the scanned text
    std::string_view cell(std::size_t channel) const { return fields_[fieldOf_[channel]]; }

    const std::vector<std::size_t>& wanted() const { return wanted_; }
    std::optional<Instant> start() const { return stamps_.start(); }
    long timeless() const { return timeless_; } ///< lines as long as a row, without a time
    /// Throws InputError (log-ragged) when more lines are short than a log of `rows` rows may have.
    void refuseRagged(std::size_t rows) const;

private:
    bool take(std::string_view text, bool unended);
    std::size_t split(std::string_view text);
    std::size_t fieldsNeeded() const;
    void shortLine(std::string_view text, bool unended);
    void lineWithoutTime(std::string_view text);
    bool isColumnName(std::string_view text);
    void noteNoTime();
    void tellProgress() const;

    const LogLayout& layout_;
    const LogOptions& options_;
    LogNotes& notes_;
    std::vector<std::size_t> wanted_;
    StampReader stamps_;
    std::string_view rest_;
    std::size_t size_; ///< of the body, bytes
    long line_;
    double stampS_ = 0;
    std::vector<std::size_t> fieldOf_; ///< channel → field, changed by a header in another order
    std::size_t needed_ = 0;           ///< one past the last field that is looked at
    std::vector<std::string_view> fields_;
    std::vector<std::string> quoted_;            ///< what fields_ views in a line with quotes
    std::unordered_set<std::string_view> names_; ///< of the columns, once a line without a time came
    long oddLines_ = 0;
    long timeless_ = 0;
    std::optional<long> firstOddLine_;
};

} // namespace ibuki
