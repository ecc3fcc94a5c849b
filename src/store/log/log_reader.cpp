// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_reader.h"

#include "core/domain/input_error.h"
#include "core/trace/plausible.h"
#include "core/trace/time_axis.h"
#include "store/log/fingerprint.h"
#include "store/log/json_lines.h"
#include "store/log/mapped_file.h"
#include "store/log/number_cell.h"
#include "store/log/text.h"

#include <algorithm>
#include <cstring>
#include <fmt/format.h>
#include <limits>
#include <map>

namespace ibuki {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr std::size_t previewRows = 40;
constexpr std::size_t sampleRows = 300;
constexpr std::size_t tailBytes = 65'536;

class LogScan {
public:
    LogScan(std::string_view text, const std::string& fileName, const LogOptions& options, bool jsonLines)
        : text_(text), file_(fileName), options_(options), lineShift_(jsonLines ? -1 : 0) {
        report_.jsonLines = jsonLines;
    }

    LogReading run() {
        findDialect();
        takeSample();
        planColumns();
        planTime();
        scanRows();
        return finish();
    }

    /// After run() over the same text: the other channels of the rows that were kept, block by block.
    void stream(std::size_t blockRows, const std::function<void(const ChannelBlock&)>& sink) {
        wanted_.clear();
        for (std::size_t i = 0; i < roles_.size(); ++i) {
            channels_[i] = {};
            channels_[i].fileUnit = units_[i];
            if (roles_[i] == Role::ignore) wanted_.push_back(i);
        }
        for (std::size_t i = 0; i < fieldOf_.size(); ++i) fieldOf_[i] = i;
        blocks_ = {blockRows, sink, {}, 0, 0};
        blocks_->numeric = numericColumns();
        stamps_.clear();
        lines_.clear();
        report_.problems.clear();
        scanRows();
        flushBlocks();
    }

private:
    struct Blocks {
        std::size_t rows = 0; ///< in a whole block
        std::function<void(const ChannelBlock&)> sink;
        std::vector<bool> numeric;
        std::size_t row = 0;  ///< of the log, kept or not
        std::size_t done = 0; ///< blocks handed over
    };

    /// A column with any number in the sample is one of numbers.
    std::vector<bool> numericColumns() const {
        std::vector<bool> numeric(roles_.size(), false);
        for (const auto& row : sample_)
            for (std::size_t i = 0; i < numeric.size() && i < row.size(); ++i)
                if (!numeric[i]) numeric[i] = looseNumber(row[i], dialect_.decimal).has_value();
        return numeric;
    }

    void flushBlocks() {
        for (std::size_t i : wanted_) {
            Channel& channel = channels_[i];
            if (channel.values.empty() && channel.words.empty()) continue;
            blocks_->sink({i, blocks_->done, channel.values, channel.words});
            channel.values.clear();
            channel.words.clear();
        }
        ++blocks_->done;
        gathered_ = 0;
    }

    void takeBlockRow() {
        if (!keep_[blocks_->row++]) return;
        for (std::size_t i : wanted_) {
            const std::string_view field = fields_[fieldOf_[i]];
            if (!blocks_->numeric[i]) {
                channels_[i].words.emplace_back(trim(field));
                continue;
            }
            const auto number = parseNumber(field, dialect_.decimal);
            channels_[i].values.push_back(number ? toCanonical(*number, channels_[i].fileUnit)
                                                 : otherwise(channels_[i], field));
        }
        if (++gathered_ == blocks_->rows) flushBlocks();
    }

    [[noreturn]] void refuse(const char* code, const std::string& what, const std::string& mend,
                             std::optional<long> line = {}, std::optional<long> column = {}) const {
        if (line) line = std::max(1L, *line + lineShift_);
        throw InputError(code, {file_, line, column}, what, mend);
    }

    void problem(std::optional<long> line, std::string what) {
        if (line) line = *line + lineShift_;
        if (report_.problems.size() < mostProblems)
            report_.problems.push_back({line, std::move(what)});
        else
            ++report_.furtherProblems;
    }

    void findDialect() {
        if (text_.find_first_not_of(" \r\n\t") == std::string_view::npos)
            refuse("log-empty", "the file is empty", "Choose the log that the logger wrote");
        auto found = detectDialect(text_, options_.dialect);
        if (!found)
            refuse("log-not-a-log", "no line of column names followed by rows of numbers was found",
                   "Choose a text log with a header line and one line a sample", 1);
        dialect_ = std::move(*found);
    }

    /// Rows of the beginning and of the end, for what has to be told from the data.
    void takeSample() {
        std::string_view rest = text_.substr(dialect_.bodyOffset);
        long line = dialect_.bodyLine - 1;
        while (!rest.empty() && sample_.size() < sampleRows) {
            ++line;
            auto fields = splitFields(takeLine(rest), dialect_.separator);
            if (fields.size() < 2 && dialect_.columns.size() > 1) continue;
            if (report_.preview.size() < previewRows) {
                report_.previewLines.push_back(line + lineShift_);
                report_.preview.push_back(fields);
            }
            sample_.push_back(std::move(fields));
        }
        if (rest.size() > tailBytes) {
            rest = rest.substr(rest.size() - tailBytes);
            takeLine(rest); // most likely cut
        }
        while (!rest.empty() && sample_.size() < 2 * sampleRows)
            sample_.push_back(splitFields(takeLine(rest), dialect_.separator));
        if (sample_.empty())
            refuse("log-no-samples", "there is a header but no sample under it", "Choose a log with samples",
                   dialect_.headerLine);
    }

    /// A unit that stands under the header or behind the numbers of a column.
    Unit unitElsewhere(std::size_t column) const {
        if (column < dialect_.units.size())
            if (const auto unit = unitFromText(dialect_.units[column])) return *unit;
        for (const auto& row : sample_) {
            if (column >= row.size() || trim(row[column]).empty()) continue;
            if (parseNumber(row[column], dialect_.decimal)) return Unit::none;
            if (const auto number = looseNumber(row[column], dialect_.decimal)) return number->unit;
        }
        return Unit::none;
    }

    std::optional<Role> statedRole(const std::string& column, const Header& header) const {
        const auto named = options_.roles.find(column);
        if (named != options_.roles.end()) return named->second;
        for (const auto& [name, role] : options_.roles)
            if (parseHeader(name).words == header.words) return role;
        return std::nullopt;
    }

    void planColumns() {
        std::vector<Header> headers;
        std::vector<std::size_t> stated;
        for (std::size_t i = 0; i < dialect_.columns.size(); ++i) {
            Header header = parseHeader(dialect_.columns[i]);
            if (header.unit == Unit::none) header.unit = unitElsewhere(i);
            const auto role = statedRole(dialect_.columns[i], header);
            if (role) stated.push_back(i);
            report_.roles.push_back(role ? RoleGuess{*role, 2.0} : guessRole(header)); // stated beats guessed
            headers.push_back(std::move(header));
        }
        settleRoles(report_.roles);
        if (options_.roomOnly) takeAsRoom(headers);
        for (std::size_t i : stated) // several that the user says are the same stay so
            report_.roles[i] = {*statedRole(dialect_.columns[i], headers[i]), 1.0};
        std::map<Role, int> seen;
        for (std::size_t i = 0; i < headers.size(); ++i) {
            Channel channel;
            channel.column = dialect_.columns[i];
            channel.fileUnit = headers[i].unit;
            channel.role = report_.roles[i].role;
            channel.index = seen[channel.role]++;
            channels_.push_back(std::move(channel));
        }
        fieldOf_.resize(channels_.size());
        for (std::size_t i = 0; i < fieldOf_.size(); ++i) fieldOf_[i] = i;
        words_.resize(channels_.size());
    }

    /// Of a probe's log: every temperature, else every column that nothing else is known of.
    void takeAsRoom(const std::vector<Header>& headers) {
        const auto degrees = [](const Header& h) {
            return h.unit == Unit::celsius || h.unit == Unit::fahrenheit || h.unit == Unit::kelvin;
        };
        const bool any = std::any_of(headers.begin(), headers.end(), degrees);
        for (std::size_t i = 0; i < headers.size(); ++i)
            if (report_.roles[i].role != Role::time && report_.roles[i].role != Role::ambient
                && (any ? degrees(headers[i])
                        : report_.roles[i].role == Role::ignore && headers[i].unit == Unit::none))
                report_.roles[i] = {Role::ambient, 0.5};
    }

    void planTime() {
        std::vector<TimeColumn> candidates;
        for (std::size_t i = 0; i < channels_.size(); ++i)
            if (channels_[i].role == Role::time) candidates.push_back({i, channels_[i].fileUnit});
        if (candidates.empty()) candidates.push_back({0, channels_[0].fileUnit});
        const auto reading = detectTime(candidates, sample_, dialect_.decimal, options_.time);
        const std::size_t first = candidates.front().index;
        if (!reading || reading->column >= channels_.size() || reading->clockColumn >= channels_.size())
            refuse("log-no-time",
                   fmt::format("\"{}\" in column \"{}\" is no time",
                               first < sample_.front().size()
                                   ? std::string(trim(sample_.front()[first])).substr(0, 40)
                                   : std::string(),
                               channels_[first].column),
                   "Name the time column in a channel map", dialect_.bodyLine, static_cast<long>(first + 1));
        time_ = *reading;
        channels_[time_.column].role = Role::time;
        report_.roles[time_.column].role = Role::time;
        for (std::size_t i = 0; i < channels_.size(); ++i) {
            const Role role = channels_[i].role;
            if (role != Role::time && (role != Role::ignore || options_.allChannels)) wanted_.push_back(i);
        }
    }

    /// One past the last field that is looked at, for the columns as they stand now.
    std::size_t fieldsNeeded() const {
        std::size_t last = std::max(fieldOf_[time_.column],
                                    time_.style == TimeStyle::dateAndClock ? fieldOf_[time_.clockColumn] : 0);
        for (std::size_t i : wanted_) last = std::max(last, fieldOf_[i]);
        return last + 1;
    }

    void reserve(std::string_view body) {
        const std::string_view firstLine = body.substr(0, body.find('\n'));
        const std::size_t estimate =
            std::min(body.size() / std::max<std::size_t>(1, firstLine.size()) + 16, body.size() / 4 + 16);
        stamps_.reserve(estimate);
        lines_.reserve(estimate);
        for (std::size_t i : wanted_) channels_[i].values.reserve(estimate);
    }

    void scanRows() {
        const std::string_view body = text_.substr(dialect_.bodyOffset);
        if (!blocks_) reserve(body);
        needed_ = fieldsNeeded();
        StampReader stamps(time_, dialect_.decimal);
        std::string_view rest = body;
        line_ = dialect_.bodyLine - 1;
        fields_.resize(std::max(dialect_.columns.size(), needed_));
        while (!rest.empty()) {
            ++line_;
            if (line_ % 4096 == 0)
                tellProgress(1 - static_cast<double>(rest.size()) / static_cast<double>(body.size()));
            const bool unended = rest.find('\n') == std::string_view::npos;
            const std::string_view text = takeLine(rest);
            if (text.empty()) continue;
            if (splitLine(text) < needed_) {
                shortLine(text, unended);
                continue;
            }
            if (unended && isCutOff(text)) {
                problem(line_, "The last line is cut off and was left out");
                continue;
            }
            const auto stamp =
                stamps.read(fields_[fieldOf_[time_.column]], fields_[fieldOf_[time_.clockColumn]]);
            if (stamp)
                takeRow(*stamp);
            else
                lineWithoutTime(text);
        }
        if (blocks_) return;
        start_ = stamps.start();
        if (oddLines_ > 5 && oddLines_ * 20 > static_cast<long>(stamps_.size()))
            refuse(
                "log-ragged",
                fmt::format("{} lines do not have the {} fields of the header", oddLines_, channels_.size()),
                "Check the log near that line", firstOddLine_);
        if (stamps_.empty()) refuseWithoutSamples();
    }

    [[noreturn]] void refuseWithoutSamples() const {
        if (timeless_ > 0)
            refuse("log-no-time", "no row carries a readable time", "Name the time column in a channel map",
                   dialect_.bodyLine, static_cast<long>(time_.column + 1));
        refuse("log-no-samples", "there is a header but no sample under it", "Choose a log with samples",
               dialect_.headerLine);
    }

    void tellProgress(double share) const {
        if (options_.stop.stop_requested()) throw Cancelled{};
        if (options_.progress) options_.progress(share);
    }

    /// Words of a footer, or a line that was cut off.
    void shortLine(std::string_view text, bool unended) {
        if (trim(text).empty()) return;
        problem(line_, unended ? "The last line is cut off and was left out"
                               : "It has fewer fields than the header and was left out");
        if (unended) return;
        ++oddLines_;
        if (!firstOddLine_) firstOddLine_ = line_;
    }

    /// The last line without an end misses fields that every other row has.
    bool isCutOff(std::string_view text) const {
        return splitFields(text, dialect_.separator).size() < dialect_.fieldsPerRow;
    }

    /// The header again after a restart (perhaps in another order), or a footer's summary.
    void lineWithoutTime(std::string_view text) {
        auto names = splitFields(text, dialect_.separator);
        for (std::string& name : names) name = std::string(trim(name));
        std::vector<std::size_t> fields(channels_.size());
        std::vector<bool> used(names.size(), false);
        std::size_t found = 0;
        for (std::size_t i = 0; i < channels_.size(); ++i)
            for (std::size_t k = 0; k < names.size(); ++k)
                if (!used[k] && names[k] == channels_[i].column) {
                    used[k] = true;
                    fields[i] = k;
                    ++found;
                    break;
                }
        if (found == channels_.size()) {
            problem(line_, fields == fieldOf_
                               ? "The header stands here again: the logger was started anew"
                               : "The header stands here again with its columns in another order");
            fieldOf_ = std::move(fields);
            needed_ = fieldsNeeded();
            fields_.resize(std::max(fields_.size(), needed_));
            return;
        }
        ++timeless_;
        problem(line_, fmt::format("\"{}\" is no time: the line was left out",
                                   std::string(trim(fields_[fieldOf_[time_.column]])).substr(0, 40)));
    }

    /// Fields of the line up to the last one needed; returns how many the line has up to there.
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
        while (count < needed_) {
            const auto* next = static_cast<const char*>(
                std::memchr(at, dialect_.separator, static_cast<std::size_t>(end - at)));
            fields_[count++] = {at, static_cast<std::size_t>((next ? next : end) - at)};
            if (!next) break;
            at = next + 1;
        }
        return count;
    }

    void takeRow(double stamp) {
        if (blocks_) {
            takeBlockRow();
            return;
        }
        stamps_.push_back(stamp);
        lines_.push_back(static_cast<std::uint32_t>(line_));
        for (std::size_t i : wanted_) {
            Channel& channel = channels_[i];
            const std::string_view field = fields_[fieldOf_[i]];
            const auto number = parseNumber(field, dialect_.decimal);
            channel.values.push_back(number ? toCanonical(*number, channel.fileUnit)
                                            : otherwise(channel, field));
            if (options_.allChannels && !number && std::isnan(channel.values.back()))
                if (const auto word = trim(field); !word.empty())
                    words_[i].emplace(stamps_.size() - 1, std::string(word));
        }
    }

    double otherwise(const Channel& channel, std::string_view field) const {
        if (field.empty()) return nan;
        if (const auto loose = looseNumber(field, dialect_.decimal))
            return toCanonical(loose->value, loose->unit == Unit::none ? channel.fileUnit : loose->unit);
        if (channel.role == Role::limitFlag) return flagValue(field).value_or(nan);
        return nan;
    }

    LogReading finish() {
        TimeAxis axis = repairTimeAxis(stamps_, time_.clockOnly, witness());
        if (axis.keep.empty()) refuseWithoutSamples();
        rememberFor(axis);
        for (const TimeAxisEvent& event : axis.events) problem(lines_[event.row], eventText(event));
        Trace trace;
        trace.timeS = std::move(axis.timeS);
        trace.axis = axis.report;
        trace.start = start_;
        const bool whole = axis.keep.size() == stamps_.size();
        bool anyNumbers = false;
        for (std::size_t i = 0; i < channels_.size(); ++i) {
            Channel channel = std::move(channels_[i]);
            if (!channel.values.empty()) {
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
        for (const ImpossibleCells& cells : blankImpossible(trace))
            problem(lines_[axis.keep[cells.firstRow]],
                    fmt::format("{} reading{} of \"{}\" cannot be, such as {:g}, and count as missing",
                                cells.count, cells.count == 1 ? "" : "s", cells.column, cells.first));
        std::stable_sort(report_.problems.begin(), report_.problems.end(),
                         [](const LogProblem& a, const LogProblem& b) { return a.line < b.line; });
        report_.fingerprint = headerFingerprint(dialect_.columns);
        report_.dialect = dialect_;
        report_.dialect.headerLine += lineShift_;
        report_.time = time_;
        return {std::move(trace), std::move(report_)};
    }

    /// What a later stream over the same text needs.
    void rememberFor(const TimeAxis& axis) {
        keep_.assign(stamps_.size(), false);
        for (std::size_t row : axis.keep) keep_[row] = true;
        for (const Channel& channel : channels_) {
            roles_.push_back(channel.role);
            units_.push_back(channel.fileUnit);
        }
    }

    /// A temperature that tells whether the chip went on while the clock jumped.
    std::span<const double> witness() const {
        for (const Channel& channel : channels_)
            if (isChipTemperature(channel.role) && !channel.values.empty()) return channel.values;
        return {};
    }

    static std::string eventText(const TimeAxisEvent& event) {
        switch (event.kind) {
        case TimeAxisEvent::Kind::clockJump:
            return fmt::format("The clock was set by {:.0f} s: taken out", event.stepS);
        case TimeAxisEvent::Kind::gap:
            return fmt::format("Nothing was logged for {:.0f} s", event.stepS);
        case TimeAxisEvent::Kind::duplicate:
            break;
        }
        return "It repeats the time of the line before and was left out";
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
    long lineShift_; ///< from the scanned text to the file
    LogReport report_;
    Dialect dialect_;
    TimeReading time_;
    std::vector<std::vector<std::string>> sample_;
    std::vector<Channel> channels_;
    std::vector<std::size_t> wanted_;  ///< channels that are read
    std::vector<std::size_t> fieldOf_; ///< channel → field, changed by a header in another order
    std::vector<std::map<std::size_t, std::string>> words_; ///< row → text, of cells that are no numbers
    std::vector<double> stamps_;
    std::vector<std::uint32_t> lines_; ///< of the rows
    std::vector<std::string_view> fields_;
    std::vector<std::string> quoted_;
    std::size_t needed_ = 0;
    long line_ = 0;
    std::optional<Instant> start_;
    long oddLines_ = 0;
    long timeless_ = 0;
    std::optional<long> firstOddLine_;
    // Of a stream only.
    std::optional<Blocks> blocks_;
    std::vector<bool> keep_;
    std::vector<Role> roles_;
    std::vector<Unit> units_;
    std::size_t gathered_ = 0;
};

/// The text of a log as it is scanned: its own, or that of its objects.
struct ScannedText {
    DecodedText text;
    std::string table; ///< of JSON Lines
    LogOptions options;
    bool jsonLines = false;

    ScannedText(std::string_view bytes, const std::string& fileName, const LogOptions& given)
        : text(decodeText(bytes, fileName)), options(given), jsonLines(looksLikeJsonLines(text.view())) {
        if (!jsonLines) return;
        table = separatedFromJsonLines(text.view(), fileName);
        options.dialect = {'\t', '.', 1}; // ours, whatever is wished of a log with separators
    }
    std::string_view view() const { return jsonLines ? std::string_view(table) : text.view(); }
};

} // namespace

LogReading readLogReported(std::string_view bytes, const std::string& fileName, const LogOptions& options) {
    const ScannedText text(bytes, fileName, options);
    return LogScan(text.view(), fileName, text.options, text.jsonLines).run();
}

void streamOtherChannels(std::string_view bytes, const std::string& fileName, const LogOptions& options,
                         std::size_t blockRows, const std::function<void(const ChannelBlock&)>& sink) {
    ScannedText text(bytes, fileName, options);
    text.options.allChannels = false;
    LogScan scan(text.view(), fileName, text.options, text.jsonLines);
    scan.run();
    scan.stream(blockRows, sink);
}

Trace readLog(std::string_view bytes, const std::string& fileName, const LogOptions& options) {
    return readLogReported(bytes, fileName, options).trace;
}

Trace readLogFile(const std::filesystem::path& path, const LogOptions& options) {
    const MappedFile file(path);
    return readLog(file.bytes(), path.string(), options);
}

std::string readAsText(const LogReport& report) {
    if (report.jsonLines) return "JSON Lines, " + timeReadingText(report.time);
    const char* separator = report.dialect.separator == ';'    ? "semicolons"
                            : report.dialect.separator == '\t' ? "tabs"
                            : report.dialect.separator == '|'  ? "bars"
                                                               : "commas";
    return fmt::format("{}, decimal {}, header in line {}{}, {}", separator,
                       report.dialect.decimal == ',' ? "comma" : "point", report.dialect.headerLine,
                       report.dialect.units.empty() ? "" : " with units under it",
                       timeReadingText(report.time));
}

} // namespace ibuki
