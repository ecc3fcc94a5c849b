// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_reader.h"

#include "core/domain/input_error.h"
#include "core/trace/time_axis.h"
#include "store/log/dialect.h"
#include "store/log/mapped_file.h"
#include "store/log/text.h"
#include "store/log/time_stamp.h"

#include <algorithm>
#include <cstring>
#include <fmt/format.h>
#include <limits>
#include <map>

namespace ibuki {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr double secondsPerDay = 86'400;

enum class TimeStyle { elapsed, stamp, dateAndClock };

/// What is done with one column.
struct ColumnPlan {
    bool wanted = false;
    std::size_t slot = 0; ///< index into the channels
};

/// Which columns tell the time, and how.
struct TimePlan {
    TimeStyle style = TimeStyle::elapsed;
    std::size_t column = 0;
    std::size_t clockColumn = 0; ///< only of dateAndClock
    Unit unit = Unit::second;
    DateOrder order = DateOrder::yearMonthDay;
    bool clockOnly = false;
};

class LogScan {
public:
    LogScan(std::string_view text, const std::string& fileName, const LogOptions& options)
        : text_(text), file_(fileName), options_(options) {}

    Trace run() {
        findDialect();
        planColumns();
        planTime();
        scanRows();
        return finish();
    }

private:
    [[noreturn]] void refuse(const char* code, const std::string& what, const std::string& mend,
                             std::optional<long> line = {}, std::optional<long> column = {}) const {
        throw InputError(code, {file_, line, column}, what, mend);
    }

    void findDialect() {
        if (text_.find_first_not_of(" \r\n\t") == std::string_view::npos)
            refuse("log-empty", "the file is empty", "Choose the log that the logger wrote");
        auto found = detectDialect(text_);
        if (!found)
            refuse("log-not-a-log", "no line of column names followed by rows of numbers was found",
                   "Choose a text log with a header line and one line a sample", 1);
        dialect_ = std::move(*found);
    }

    Role roleOf(const std::string& column, const Header& header) const {
        const auto named = options_.roles.find(column);
        if (named != options_.roles.end()) return named->second;
        for (const auto& [name, role] : options_.roles)
            if (parseHeader(name).words == header.words) return role;
        return guessRole(header);
    }

    void planColumns() {
        std::map<Role, int> seen;
        for (const std::string& column : dialect_.columns) {
            const Header header = parseHeader(column);
            const Role role = roleOf(column, header);
            Channel channel;
            channel.column = column;
            channel.fileUnit = header.unit;
            channel.role = role;
            channel.index = seen[role]++;
            channels_.push_back(std::move(channel));
            plan_.push_back(
                {role != Role::time && (role != Role::ignore || options_.allChannels), channels_.size() - 1});
        }
        words_.resize(channels_.size());
    }

    std::vector<std::string> firstRow() const {
        std::string_view rest = text_.substr(dialect_.bodyOffset);
        while (!rest.empty()) {
            auto fields = splitFields(takeLine(rest), dialect_.separator);
            if (fields.size() == dialect_.fieldsPerRow) return fields;
        }
        refuse("log-no-samples", "there is a header but no sample under it", "Choose a log with samples",
               dialect_.headerLine);
    }

    void planTime() {
        const auto row = firstRow();
        std::vector<std::size_t> times;
        for (std::size_t i = 0; i < channels_.size(); ++i)
            if (channels_[i].role == Role::time) times.push_back(i);
        if (times.empty()) times.push_back(0); // loggers put the time first when they do not name it
        time_.column = times.front();
        const auto first = parseStamp(row[times.front()], dateOrderOf(row[times.front()]));
        if (parseNumber(row[times.front()], dialect_.decimal)) {
            time_.style = TimeStyle::elapsed;
            if (channels_[time_.column].fileUnit == Unit::millisecond) time_.unit = Unit::millisecond;
        } else if (first && first->day && times.size() > 1
                   && row[times.front()].find(':') == std::string::npos) {
            time_.style = TimeStyle::dateAndClock;
            time_.clockColumn = times[1];
        } else if (first) {
            time_.style = TimeStyle::stamp;
            time_.clockOnly = !first->day;
        } else {
            refuse("log-no-time",
                   fmt::format("\"{}\" in column \"{}\" is no time", row[times.front()],
                               channels_[time_.column].column),
                   "Name the time column in a channel map", dialect_.headerLine + 1,
                   static_cast<long>(times.front() + 1));
        }
        time_.order = dateOrderOf(row[times.front()]);
        if (channels_[time_.column].role != Role::time) {
            channels_[time_.column].role = Role::time;
            plan_[time_.column].wanted = false;
        }
    }

    std::optional<double> stampOf(std::string_view dateField, std::string_view clockField) {
        if (time_.style == TimeStyle::elapsed) {
            const auto number = parseNumber(dateField, dialect_.decimal);
            if (!number) return std::nullopt;
            return toCanonical(*number, time_.unit);
        }
        const auto stamp = parseStamp(dateField, time_.order);
        if (!stamp) return std::nullopt;
        double second = stamp->secondOfDay;
        if (time_.style == TimeStyle::dateAndClock) {
            const auto clock = parseStamp(clockField, time_.order);
            if (!clock) return std::nullopt;
            second = clock->secondOfDay;
        }
        if (stamp->day && !firstDay_) {
            firstDay_ = *stamp->day;
            start_ = Instant{*stamp->day * 86'400'000 + static_cast<std::int64_t>(second * 1000)};
        }
        return static_cast<double>(stamp->day.value_or(0) - firstDay_.value_or(0)) * secondsPerDay + second;
    }

    void scanRows() {
        const std::string_view body = text_.substr(dialect_.bodyOffset);
        const std::string_view firstLine = body.substr(0, body.find('\n'));
        const std::size_t estimate = body.size() / std::max<std::size_t>(1, firstLine.size()) + 16;
        stamps_.reserve(estimate);
        for (std::size_t i = 0; i < plan_.size(); ++i)
            if (plan_[i].wanted) channels_[i].values.reserve(estimate);
        last_ = std::max(time_.column, time_.clockColumn);
        for (std::size_t i = 0; i < plan_.size(); ++i)
            if (plan_[i].wanted) last_ = std::max(last_, i);

        std::string_view rest = body;
        long line = dialect_.headerLine;
        fields_.resize(plan_.size());
        while (!rest.empty()) {
            ++line;
            if (line % 4096 == 0 && options_.stop.stop_requested()) throw Cancelled{};
            const bool cutOff = rest.find('\n') == std::string_view::npos;
            const std::string_view text = takeLine(rest);
            if (text.empty()) continue;
            const std::size_t count = splitLine(text);
            if (count <= last_) { // preamble words, a footer, or a line that was cut off
                if (!cutOff) ++oddLines_;
                if (oddLines_ == 1 && !cutOff) firstOddLine_ = line;
                continue;
            }
            takeRow();
        }
        if (oddLines_ > 5 && oddLines_ * 20 > static_cast<long>(stamps_.size()))
            refuse("log-ragged",
                   fmt::format("{} lines do not have the {} fields of the header", oddLines_, plan_.size()),
                   "Check the log near that line", firstOddLine_);
        if (stamps_.empty())
            refuse("log-no-samples", "there is a header but no sample under it", "Choose a log with samples",
                   dialect_.headerLine);
    }

    /// Fields of the line up to the last one wanted; returns how many the line has up to there.
    std::size_t splitLine(std::string_view text) {
        if (std::memchr(text.data(), '"', text.size()) != nullptr) {
            quoted_ = splitFields(text, dialect_.separator);
            const std::size_t count = std::min(quoted_.size(), fields_.size());
            for (std::size_t i = 0; i < count; ++i) fields_[i] = quoted_[i];
            return count;
        }
        std::size_t count = 0;
        const char* at = text.data();
        const char* const end = at + text.size();
        while (count <= last_) {
            const auto* next = static_cast<const char*>(
                std::memchr(at, dialect_.separator, static_cast<std::size_t>(end - at)));
            fields_[count++] = {at, static_cast<std::size_t>((next ? next : end) - at)};
            if (!next) break;
            at = next + 1;
        }
        return count;
    }

    void takeRow() {
        const auto stamp = stampOf(fields_[time_.column], fields_[time_.clockColumn]);
        stamps_.push_back(stamp.value_or(nan));
        for (std::size_t i = 0; i <= last_; ++i) {
            if (!plan_[i].wanted) continue;
            Channel& channel = channels_[i];
            const auto number = parseNumber(fields_[i], dialect_.decimal);
            channel.values.push_back(number ? toCanonical(*number, channel.fileUnit) : nan);
            if (options_.allChannels && !number)
                words_[i].emplace(stamps_.size() - 1, std::string(trim(fields_[i])));
        }
    }

    Trace finish() {
        std::vector<double> witness;
        for (const Channel& channel : channels_)
            if (isChipTemperature(channel.role) && !channel.values.empty()) {
                witness = channel.values;
                break;
            }
        TimeAxis axis = repairTimeAxis(stamps_, time_.clockOnly, witness);
        if (axis.keep.empty())
            refuse("log-no-time", "no row carries a readable time", "Name the time column in a channel map",
                   dialect_.headerLine + 1, static_cast<long>(time_.column + 1));
        Trace trace;
        trace.timeS = std::move(axis.timeS);
        trace.axis = axis.report;
        trace.start = start_;
        const bool whole = axis.keep.size() == stamps_.size();
        bool anyNumbers = false;
        for (std::size_t i = 0; i < channels_.size(); ++i) {
            Channel channel = std::move(channels_[i]);
            if (plan_[i].wanted) {
                const bool numbers = std::any_of(channel.values.begin(), channel.values.end(),
                                                 [](double v) { return std::isfinite(v); });
                anyNumbers = anyNumbers || (numbers && channel.role != Role::ignore);
                if (!numbers) {
                    if (options_.allChannels) channel.words = wordsOf(i, axis.keep);
                    channel.values.clear();
                    channel.role = Role::ignore;
                } else if (!whole) {
                    channel.values = kept(channel.values, axis.keep);
                }
            }
            trace.channels.push_back(std::move(channel));
        }
        if (!anyNumbers)
            refuse("log-no-channels", "no column is known as a temperature, a power or a fan",
                   "Name the columns in a channel map", dialect_.headerLine);
        return trace;
    }

    static std::vector<double> kept(const std::vector<double>& values, const std::vector<std::size_t>& keep) {
        std::vector<double> result;
        result.reserve(keep.size());
        for (std::size_t row : keep) result.push_back(values[row]);
        return result;
    }

    std::vector<std::string> wordsOf(std::size_t column, const std::vector<std::size_t>& keep) const {
        std::vector<std::string> result;
        result.reserve(keep.size());
        for (std::size_t row : keep) {
            const auto found = words_[column].find(row);
            result.push_back(found == words_[column].end() ? std::string() : found->second);
        }
        return result;
    }

    std::string_view text_;
    const std::string& file_;
    const LogOptions& options_;
    Dialect dialect_;
    TimePlan time_;
    std::vector<Channel> channels_;
    std::vector<ColumnPlan> plan_;
    std::vector<std::map<std::size_t, std::string>> words_; ///< row → text, of cells that are no numbers
    std::vector<double> stamps_;
    std::vector<std::string_view> fields_;
    std::vector<std::string> quoted_;
    std::size_t last_ = 0;
    std::optional<std::int64_t> firstDay_;
    std::optional<Instant> start_;
    long oddLines_ = 0;
    std::optional<long> firstOddLine_;
};

} // namespace

Trace readLog(std::string_view bytes, const std::string& fileName, const LogOptions& options) {
    const DecodedText text = decodeText(bytes, fileName);
    return LogScan(text.view(), fileName, options).run();
}

Trace readLogFile(const std::filesystem::path& path, const LogOptions& options) {
    const MappedFile file(path);
    return readLog(file.bytes(), path.string(), options);
}

} // namespace ibuki
