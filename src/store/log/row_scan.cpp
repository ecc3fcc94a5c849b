// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/row_scan.h"

#include "store/log/text.h"

#include <algorithm>
#include <cstring>
#include <fmt/format.h>
#include <numeric>

namespace ibuki {

RowScan::RowScan(std::string_view text, const LogLayout& layout, std::vector<std::size_t> wanted,
                 const LogOptions& options, LogNotes& notes)
    : layout_(layout),
      options_(options),
      notes_(notes),
      wanted_(std::move(wanted)),
      stamps_(layout.time, layout.dialect.decimal),
      rest_(text.substr(layout.dialect.bodyOffset)),
      size_(rest_.size()),
      line_(layout.dialect.bodyLine - 1),
      fieldOf_(layout.channels.size()) {
    std::iota(fieldOf_.begin(), fieldOf_.end(), std::size_t{0});
    needed_ = fieldsNeeded();
    fields_.resize(std::max(layout.dialect.columns.size(), needed_));
}

bool RowScan::next() {
    while (!rest_.empty()) {
        ++line_;
        if (line_ % 4096 == 0) tellProgress();
        const bool unended = rest_.find('\n') == std::string_view::npos;
        const std::string_view text = takeLine(rest_);
        if (!text.empty() && take(text, unended)) return true;
    }
    return false;
}

/// True when the line is a sample.
bool RowScan::take(std::string_view text, bool unended) {
    if (split(text) < needed_) {
        shortLine(text, unended);
        return false;
    }
    // The last line without an end may miss fields that every other row has.
    if (unended && splitFields(text, layout_.dialect.separator).size() < layout_.dialect.fieldsPerRow) {
        notes_.note(line_, {"log-line.cut-off", {}});
        return false;
    }
    const auto stamp = stamps_.read(cell(layout_.time.column), cell(layout_.time.clockColumn));
    if (stamp)
        stampS_ = *stamp;
    else
        lineWithoutTime(text);
    return stamp.has_value();
}

std::size_t RowScan::fieldsNeeded() const {
    const TimeReading& time = layout_.time;
    std::size_t last = fieldOf_[time.column];
    if (time.style == TimeStyle::dateAndClock) last = std::max(last, fieldOf_[time.clockColumn]);
    for (std::size_t i : wanted_) last = std::max(last, fieldOf_[i]);
    return last + 1;
}

/// Fields of the line up to the last one needed; returns how many the line has up to there.
std::size_t RowScan::split(std::string_view text) {
    const char separator = layout_.dialect.separator;
    if (std::memchr(text.data(), '"', text.size()) != nullptr) {
        quoted_ = splitFields(text, separator);
        const std::size_t count = std::min(quoted_.size(), fields_.size());
        for (std::size_t i = 0; i < count; ++i) fields_[i] = quoted_[i];
        return count;
    }
    std::size_t count = 0;
    if (isBlankSeparator(separator)) {
        while (count < needed_) {
            const auto field = takeBlankField(text, separator);
            if (!field) break;
            fields_[count++] = *field;
        }
        return count;
    }
    const char* at = text.data();
    const char* const end = at + text.size();
    while (count < needed_) {
        const auto* next =
            static_cast<const char*>(std::memchr(at, separator, static_cast<std::size_t>(end - at)));
        fields_[count++] = {at, static_cast<std::size_t>((next ? next : end) - at)};
        if (!next) break;
        at = next + 1;
    }
    return count;
}

/// Words of a footer, or a line that was cut off.
void RowScan::shortLine(std::string_view text, bool unended) {
    if (trim(text).empty()) return;
    notes_.note(line_, {unended ? "log-line.cut-off" : "log-line.short", {}});
    if (unended) return;
    ++oddLines_;
    if (!firstOddLine_) firstOddLine_ = line_;
}

/// The header again after a restart (perhaps in another order), or a footer's summary.
void RowScan::lineWithoutTime(std::string_view text) {
    if (!isColumnName(cell(layout_.time.column))) return noteNoTime();
    auto names = splitFields(text, layout_.dialect.separator);
    for (std::string& name : names) name = std::string(trim(name));
    const auto& channels = layout_.channels;
    std::vector<std::size_t> fields(channels.size());
    std::vector<bool> used(names.size(), false);
    std::size_t found = 0;
    for (std::size_t i = 0; i < channels.size(); ++i)
        for (std::size_t k = 0; k < names.size(); ++k)
            if (!used[k] && names[k] == channels[i].column) {
                used[k] = true;
                fields[i] = k;
                ++found;
                break;
            }
    if (found == channels.size()) {
        notes_.note(line_, {fields == fieldOf_ ? "log-line.header-again" : "log-line.header-changed", {}});
        fieldOf_ = std::move(fields);
        needed_ = fieldsNeeded();
        fields_.resize(std::max(fields_.size(), needed_));
        return;
    }
    noteNoTime();
}

/// A repeated header has a column's name where the time stands.
bool RowScan::isColumnName(std::string_view text) {
    if (names_.empty())
        for (const Channel& channel : layout_.channels) names_.emplace(channel.column);
    return names_.contains(trim(text));
}

void RowScan::noteNoTime() {
    ++timeless_;
    notes_.note(line_,
                {"log-line.no-time", {{"cell", std::string(trim(cell(layout_.time.column))).substr(0, 40)}}});
}

void RowScan::tellProgress() const {
    if (options_.stop.stop_requested()) throw Cancelled{};
    if (options_.progress)
        options_.progress(1 - static_cast<double>(rest_.size()) / static_cast<double>(size_));
}

void RowScan::refuseRagged(std::size_t rows) const {
    if (oddLines_ > 5 && oddLines_ * 20 > static_cast<long>(rows))
        notes_.refuse("log-ragged", {{"lines", oddLines_}, {"fields", layout_.channels.size()}},
                      firstOddLine_);
}

} // namespace ibuki
