// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/log/log_reader.h"
#include "core/base/nan.h"

#include "core/trace/plausible.h"
#include "core/trace/time_axis.h"
#include "store/log/fingerprint.h"
#include "store/log/json_lines.h"
#include "store/log/mapped_file.h"
#include "store/log/number_cell.h"
#include "store/log/row_scan.h"
#include "store/log/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <limits>

namespace ibuki {
namespace {

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
    long lineShift() const { return jsonLines ? -1 : 0; } ///< to the file: the table's header is our own
};

Message eventNote(const TimeAxisEvent& event) {
    switch (event.kind) {
    case TimeAxisEvent::Kind::clockJump:
        return {"log-line.clock-set", {{"seconds", event.stepS}}};
    case TimeAxisEvent::Kind::gap:
        return {"log-line.gap", {{"seconds", event.stepS}}};
    case TimeAxisEvent::Kind::impossible:
        return {"log-line.time-impossible", {}};
    case TimeAxisEvent::Kind::duplicate:
        break;
    }
    return {"log-line.duplicate", {}};
}

/// Every row of a log, and which of them the repaired time axis keeps.
class WholeRead {
public:
    WholeRead(const ScannedText& text, const std::string& fileName)
        : text_(text),
          notes_(fileName, text.lineShift()),
          layout_(layOut(text.view(), text.options, notes_)),
          channels_(layout_.channels),
          words_(channels_.size()) {
        if (std::all_of(channels_.begin(), channels_.end(), [](const Channel& channel) {
                return channel.role == Role::ignore || channel.role == Role::time;
            }))
            notes_.refuse("log-no-channels", {}, layout_.dialect.headerLine);
        takeRows();
        axis_ = repairTimeAxis(stamps_, layout_.time.clockOnly, witness());
        if (axis_.keep.empty()) refuseWithoutSamples();
    }

    /// Once: the samples are moved out.
    LogReading reading() {
        LogReading reading;
        for (const TimeAxisEvent& event : axis_.events) notes_.note(lines_[event.row], eventNote(event));
        Trace& trace = reading.trace;
        trace.timeS = std::move(axis_.timeS);
        trace.axis = axis_.report;
        trace.start = start_;
        for (std::size_t i = 0; i < channels_.size(); ++i) trace.channels.push_back(settled(i));
        if (std::none_of(trace.channels.begin(), trace.channels.end(), [](const Channel& channel) {
                return channel.role != Role::ignore && !channel.values.empty();
            }))
            notes_.refuse("log-no-channels", {}, layout_.dialect.headerLine);
        if (std::none_of(trace.channels.begin(), trace.channels.end(), [](const Channel& channel) {
                return isTemperature(channel.role) && !channel.values.empty();
            }))
            notes_.refuse("log-no-temperature", {}, layout_.dialect.headerLine);
        for (const ImpossibleCells& cells : blankImpossible(trace))
            notes_.note(lines_[axis_.keep[cells.firstRow]],
                        Message{"log-line.impossible",
                                {{"count", cells.count}, {"column", cells.column}, {"first", cells.first}}});
        fillReport(reading.report);
        reading.keptRows.resize(stamps_.size(), false);
        for (std::size_t row : axis_.keep) reading.keptRows[row] = true;
        return reading;
    }

private:
    struct Word {
        std::size_t row;
        std::string text;
    };

    void takeRows() {
        RowScan scan(text_.view(), layout_, wanted(), text_.options, notes_);
        reserve();
        while (scan.next()) takeRow(scan);
        start_ = scan.start();
        timeless_ = scan.timeless();
        scan.refuseRagged(stamps_.size());
        if (stamps_.empty()) refuseWithoutSamples();
    }

    std::vector<std::size_t> wanted() const {
        std::vector<std::size_t> wanted;
        for (std::size_t i = 0; i < channels_.size(); ++i)
            if (channels_[i].role != Role::time
                && (channels_[i].role != Role::ignore || text_.options.allChannels))
                wanted.push_back(i);
        return wanted;
    }

    void reserve() {
        const std::string_view body = text_.view().substr(layout_.dialect.bodyOffset);
        const std::string_view firstLine = body.substr(0, body.find('\n'));
        const std::size_t estimate =
            std::min(body.size() / std::max<std::size_t>(1, firstLine.size()) + 16, body.size() / 4 + 16);
        stamps_.reserve(estimate);
        lines_.reserve(estimate);
        for (std::size_t i : wanted()) channels_[i].values.reserve(estimate);
    }

    void takeRow(const RowScan& scan) {
        const std::size_t row = stamps_.size();
        if (row >= mostSamples) notes_.refuse("log-long");
        stamps_.push_back(scan.stampS());
        lines_.push_back(static_cast<std::uint32_t>(scan.line()));
        for (std::size_t i : scan.wanted()) {
            Channel& channel = channels_[i];
            const std::string_view field = scan.cell(i);
            channel.values.push_back(channelValue(field, channel, layout_.dialect.decimal));
            if (text_.options.allChannels && std::isnan(channel.values.back()))
                if (const auto word = trim(field); !word.empty())
                    words_[i].push_back({row, std::string(word)});
        }
    }

    [[noreturn]] void refuseWithoutSamples() const {
        if (timeless_ > 0)
            notes_.refuse("log-no-time.rows", {}, layout_.dialect.bodyLine,
                          static_cast<long>(layout_.time.column + 1));
        notes_.refuse("log-no-samples", {}, layout_.dialect.headerLine);
    }

    /// A temperature that tells whether the chip went on while the clock jumped.
    std::span<const double> witness() const {
        for (const Channel& channel : channels_)
            if (isChipTemperature(channel.role) && !channel.values.empty()) return channel.values;
        return {};
    }

    /// The channel with the rows that are kept; one without any number has its words instead, and no role.
    Channel settled(std::size_t i) {
        Channel channel = std::move(channels_[i]);
        if (channel.values.empty()) return channel;
        if (std::none_of(channel.values.begin(), channel.values.end(),
                         [](double v) { return std::isfinite(v); })) {
            if (text_.options.allChannels) channel.words = keptWords(i);
            channel.values.clear();
            channel.role = Role::ignore;
        } else if (axis_.keep.size() != stamps_.size()) {
            std::vector<double> kept;
            kept.reserve(axis_.keep.size());
            for (std::size_t row : axis_.keep) kept.push_back(channel.values[row]);
            channel.values = std::move(kept);
        }
        return channel;
    }

    std::vector<std::string> keptWords(std::size_t column) {
        std::vector<std::string> result;
        result.reserve(axis_.keep.size());
        auto word = words_[column].begin();
        for (std::size_t row : axis_.keep) {
            while (word != words_[column].end() && word->row < row) ++word;
            const bool here = word != words_[column].end() && word->row == row;
            result.push_back(here ? std::move(word->text) : std::string());
        }
        return result;
    }

    void fillReport(LogReport& report) {
        notes_.handOver(report);
        report.jsonLines = text_.jsonLines;
        report.roles = layout_.roles;
        report.stated = layout_.stated;
        report.time = layout_.time;
        report.fingerprint = layout_.fingerprint;
        report.dialect = layout_.dialect;
        report.dialect.headerLine = notes_.lineOfFile(report.dialect.headerLine);
        for (long line : layout_.previewLines) report.previewLines.push_back(notes_.lineOfFile(line));
        report.preview = layout_.preview;
    }

    const ScannedText& text_;
    LogNotes notes_;
    LogLayout layout_;
    std::vector<Channel> channels_;
    std::vector<std::vector<Word>> words_; ///< by channel, in order of row: cells that are no numbers
    std::vector<double> stamps_;
    std::vector<std::uint32_t> lines_; ///< of the rows
    std::optional<Instant> start_;
    long timeless_ = 0;
    TimeAxis axis_;
};

/// The channels without a role, row by row into blocks.
class BlockRead {
public:
    BlockRead(const ScannedText& text, const LogLayout& layout, std::size_t blockRows,
              const std::function<void(const ChannelBlock&)>& sink)
        : text_(text), layout_(layout), blockRows_(blockRows), sink_(sink) {
        for (std::size_t i = 0; i < layout.channels.size(); ++i)
            if (layout.channels[i].role == Role::ignore) gathered_.push_back({i, 0, {}, {}});
        for (const ChannelBlock& block : gathered_) numeric_.push_back(isNumeric(block.channel));
    }

    void run(const std::vector<bool>& keptRows, const std::string& fileName) {
        std::vector<std::size_t> wanted;
        for (const ChannelBlock& block : gathered_) wanted.push_back(block.channel);
        LogNotes notes(fileName, text_.lineShift()); // told by the first read already
        RowScan scan(text_.view(), layout_, wanted, text_.options, notes);
        std::size_t rows = 0;
        for (std::size_t row = 0; scan.next() && row < keptRows.size(); ++row) {
            if (!keptRows[row]) continue;
            takeRow(scan);
            if (++rows % blockRows_ == 0) flush();
        }
        flush();
    }

private:
    /// A column with any number in the sample is one of numbers.
    bool isNumeric(std::size_t column) const {
        return std::any_of(layout_.rows.begin(), layout_.rows.end(), [&](const auto& row) {
            return column < row.size() && looseNumber(row[column], layout_.dialect.decimal);
        });
    }

    void takeRow(const RowScan& scan) {
        for (std::size_t k = 0; k < gathered_.size(); ++k) {
            ChannelBlock& block = gathered_[k];
            const std::string_view field = scan.cell(block.channel);
            if (numeric_[k])
                block.values.push_back(
                    channelValue(field, layout_.channels[block.channel], layout_.dialect.decimal));
            else
                block.words.emplace_back(trim(field));
        }
    }

    void flush() {
        for (ChannelBlock& block : gathered_) {
            if (block.values.empty() && block.words.empty()) continue;
            sink_(block);
            ++block.block;
            block.values.clear();
            block.words.clear();
        }
    }

    const ScannedText& text_;
    const LogLayout& layout_;
    std::size_t blockRows_;
    const std::function<void(const ChannelBlock&)>& sink_;
    std::vector<ChannelBlock> gathered_;
    std::vector<bool> numeric_; ///< of those
};

} // namespace

LogReading readLogReported(std::string_view bytes, const std::string& fileName, const LogOptions& options) {
    const ScannedText text(bytes, fileName, options);
    return WholeRead(text, fileName).reading();
}

void streamOtherChannels(std::string_view bytes, const std::string& fileName, const LogOptions& options,
                         const std::vector<bool>& keptRows, std::size_t blockRows,
                         const std::function<void(const ChannelBlock&)>& sink) {
    ScannedText text(bytes, fileName, options);
    text.options.allChannels = false;
    const LogNotes notes(fileName, text.lineShift());
    const LogLayout layout = layOut(text.view(), text.options, notes);
    BlockRead(text, layout, blockRows, sink).run(keptRows, fileName);
}

Trace readLog(std::string_view bytes, const std::string& fileName, const LogOptions& options) {
    return readLogReported(bytes, fileName, options).trace;
}

Trace readLogFile(const std::filesystem::path& path, const LogOptions& options) {
    const MappedFile file(path);
    Trace trace = readLog(file.bytes(), path.string(), options);
    file.requireWhole();
    return trace;
}

} // namespace ibuki
