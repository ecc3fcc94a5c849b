// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/followed_log.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "core/trace/time_axis.h"
#include "store/log/json_lines.h"
#include "store/log/number_cell.h"
#include "store/log/row_scan.h"
#include "store/log/text.h"

#include <algorithm>

namespace ibuki {
namespace {

constexpr std::size_t typicalRows = 2;                  ///< the last line may be a footer
constexpr std::size_t mostHead = std::size_t{1} << 20U; ///< a log that has no rows by then has none
constexpr std::size_t mostLine = std::size_t{4} << 20U; ///< of one line

/// The line of that number, with its end.
std::string lineOf(std::string_view text, long line) {
    for (long at = 1; at < line; ++at) takeLine(text);
    std::string_view rest = text;
    takeLine(rest);
    return std::string(text.substr(0, text.size() - rest.size()));
}

LogOptions asTable(LogOptions options) {
    options.dialect = {'\t', '.', 1};
    return options;
}

} // namespace

FollowedLog::FollowedLog(std::string fileName, LogOptions options)
    : fileName_(std::move(fileName)), options_(std::move(options)) {
    options_.allChannels = true;
}

/// UTF-16 as far as its lines are complete; other bytes as they are.
std::string FollowedLog::decoded(std::string_view bytes) {
    if (!begun_ && bytes.size() >= 2) {
        begun_ = true;
        utf16_ = bytes.substr(0, 2) == "\xff\xfe" || bytes.substr(0, 2) == "\xfe\xff";
        if (bytes.starts_with("\xef\xbb\xbf")) bytes.remove_prefix(3);
    }
    if (!utf16_) return std::string(bytes);
    raw_ += bytes;
    const bool big = raw_.starts_with("\xfe\xff");
    const std::string newline = big ? std::string("\0\n", 2) : std::string("\n\0", 2);
    for (std::size_t at = raw_.size() & ~std::size_t{1}; at >= 4; at -= 2) {
        if (raw_.compare(at - 2, 2, newline) != 0) continue;
        std::string text(decodeText(std::string_view(raw_).substr(0, at), fileName_).view());
        raw_.erase(2, at - 2); // the mark stays before what follows
        return text;
    }
    return {};
}

void FollowedLog::feed(std::string_view bytes) {
    rest_ += decoded(bytes);
    const std::size_t end = rest_.rfind('\n');
    if (end == std::string::npos) {
        if (rest_.size() > mostLine) { // no log's line
            rest_.clear();
            ++badRows_;
        }
        return;
    }
    std::string lines = rest_.substr(0, end + 1);
    rest_.erase(0, end + 1);
    lines = std::string(decodeText(lines, fileName_).view()); // bytes that are no UTF-8 are Latin-1
    if (layout_) return scan(lines);
    head_ += lines;
    layOutHead(typicalRows);
}

void FollowedLog::restart() {
    rest_.clear();
    raw_.clear();
    begun_ = false;
    repeatsHead_ = layout_.has_value();
}

/// Tries whether what there is tells column names and time.
void FollowedLog::layOutHead(std::size_t leastRows) {
    jsonLines_ = looksLikeJsonLines(head_);
    try {
        const std::string table = jsonLines_ ? separatedFromJsonLines(head_, fileName_) : head_;
        const LogNotes notes(fileName_, 0);
        LogLayout layout = layOut(table, jsonLines_ ? asTable(options_) : options_, notes);
        if (layout.rows.size() < leastRows) return;
        for (std::size_t i = 0; i < layout.channels.size(); ++i) {
            const bool time =
                i == layout.time.column || layout.channels[i].role == Role::time
                || (layout.time.style == TimeStyle::dateAndClock && i == layout.time.clockColumn);
            if (time) continue;
            columns_.push_back(i);
            channels_.push_back(layout.channels[i]);
        }
        layout_ = std::move(layout);
        const std::string all = std::move(head_);
        const long firstRow = scanTable(table, *layout_, false);
        // With the first row in front, later lines are read from the same beginning of time.
        head_ = jsonLines_ ? lineOf(all, firstRow - 1)
                           : table.substr(0, layout_->dialect.bodyOffset) + lineOf(table, firstRow);
    } catch (const InputError&) {
        if (head_.size() > mostHead) head_.erase(0, head_.size() / 2); // still no log: its end may be one
    }
}

void FollowedLog::scan(std::string_view lines) {
    if (repeatsHead_) { // the names of the columns come again, or they do not
        repeatsHead_ = false;
        std::string_view names = std::string_view(head_).substr(0, layout_->dialect.bodyOffset);
        if (!jsonLines_ && lines.starts_with(names)) lines.remove_prefix(names.size());
    }
    try {
        if (jsonLines_) {
            const std::string table = separatedFromJsonLines(head_ + std::string(lines), fileName_);
            const LogNotes notes(fileName_, 0);
            scanTable(table, layOut(table, asTable(options_), notes), true);
        } else {
            scanTable(head_ + std::string(lines), *layout_, true);
        }
    } catch (const InputError&) {
        ++badRows_;
    }
}

/// Returns the line of its first row; takes that row only when it is not the head's.
long FollowedLog::scanTable(const std::string& text, const LogLayout& layout, bool headIncluded) {
    std::vector<std::size_t> wanted;
    std::vector<std::optional<std::size_t>> places; // of each channel: column of this layout
    for (const Channel& channel : channels_) {
        const auto at = std::find_if(layout.channels.begin(), layout.channels.end(),
                                     [&](const Channel& one) { return one.column == channel.column; });
        places.emplace_back();
        if (at == layout.channels.end()) continue;
        places.back() = static_cast<std::size_t>(at - layout.channels.begin());
        wanted.push_back(*places.back());
    }
    LogNotes notes(fileName_, 0);
    RowScan cells(text, layout, std::move(wanted), options_, notes);
    long firstRow = 0;
    while (cells.next()) {
        if (firstRow == 0) {
            firstRow = cells.line();
            if (headIncluded) continue; // told already
        }
        TimedRow row;
        row.timeS = onOwnClock(cells.stampS());
        for (const auto& place : places)
            row.values.push_back(
                place ? channelValue(cells.cell(*place), layout.channels[*place], layout.dialect.decimal)
                      : nan);
        rows_.push_back(std::move(row));
    }
    if (!start_) start_ = cells.start();
    LogReport report;
    notes.handOver(report);
    badRows_ += static_cast<std::int64_t>(report.problems.size()) + report.furtherProblems;
    return firstRow;
}

double FollowedLog::onOwnClock(double stampS) {
    if (!firstStampS_) firstStampS_ = stampS;
    double time = stampS - *firstStampS_ + addS_;
    if (time < lastS_) {
        const bool midnight = layout_->time.clockOnly && time < lastS_ - secondsPerDay / 2;
        const double by = midnight ? secondsPerDay : lastS_ + stepS_ - time;
        const bool beganAnew = layout_->time.style == TimeStyle::elapsed || midnight;
        if (beganAnew) addS_ += by;
        time = beganAnew ? time + by : lastS_; // a date that goes back is a clock that was set
    } else if (time > lastS_) {
        stepS_ = time - lastS_;
    }
    lastS_ = time;
    return time;
}

std::vector<TimedRow> FollowedLog::take() { return std::exchange(rows_, {}); }

} // namespace ibuki
