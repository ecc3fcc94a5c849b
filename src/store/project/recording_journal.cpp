// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/recording_journal.h"

#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "core/trace/time_axis.h"
#include "store/project/database.h"
#include "store/project/packing.h"
#include "store/project/sqlite_errors.h"
#include "store/project/stored_cells.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <algorithm>

namespace ibuki {
namespace {

constexpr int timePosition = -1;
constexpr std::size_t mostWidth = 100'000;

struct RowBlock {
    std::size_t rows = 0;
    std::size_t width = 0; ///< time and channels
    std::vector<double> numbers;
};

std::vector<RowBlock> rowBlocks(SQLite::Database& database, Id<Recording> recording) {
    SQLite::Statement query(database,
                            "SELECT samples, width, data FROM live_rows WHERE recording = ? ORDER BY block");
    query.bind(1, recording.value);
    std::vector<RowBlock> blocks;
    while (query.executeStep()) {
        RowBlock block;
        block.rows = countIn(query.getColumn(0), RecordingJournal::blockRows * 16);
        block.width = countIn(query.getColumn(1), mostWidth);
        if (block.width == 0) throw InputError("project-damaged.count", {}, {{"count", 0}});
        block.numbers = unpackNumbers(blobOf(query.getColumn(2)), block.rows * block.width);
        blocks.push_back(std::move(block));
    }
    return blocks;
}

/// Rows of each block of the time, in order.
std::vector<std::size_t> timeBlocks(SQLite::Database& database, Id<Recording> recording) {
    SQLite::Statement query(
        database,
        "SELECT block, samples FROM channel_block WHERE recording = ? AND position = ? ORDER BY block");
    query.bind(1, recording.value);
    query.bind(2, timePosition);
    std::vector<std::size_t> rows;
    while (query.executeStep()) {
        if (query.getColumn(0).getInt64() != static_cast<std::int64_t>(rows.size()))
            throw InputError("project-damaged.count", {}, {{"count", query.getColumn(0).getInt64()}});
        rows.push_back(countIn(query.getColumn(1), RecordingJournal::blockRows * 16));
    }
    return rows;
}

/// One position over all blocks; where it has none, NaN.
std::vector<double> blocksOf(SQLite::Database& database, Id<Recording> recording, int position,
                             const std::vector<std::size_t>& rows) {
    std::vector<double> values;
    SQLite::Statement query(
        database,
        "SELECT block, samples, data FROM channel_block WHERE recording = ? AND position = ? ORDER BY block");
    query.bind(1, recording.value);
    query.bind(2, position);
    std::size_t next = 0;
    const auto skipTo = [&](std::size_t block) {
        for (; next < block; ++next) values.resize(values.size() + rows[next], nan);
    };
    while (query.executeStep()) {
        const std::size_t block = countIn(query.getColumn(0), mostSamples);
        if (block >= rows.size())
            throw InputError("project-damaged.count", {}, {{"count", static_cast<std::int64_t>(block)}});
        skipTo(block);
        if (countIn(query.getColumn(1), RecordingJournal::blockRows * 16) != rows[block])
            throw InputError("project-damaged.lengths", {}, {{"column", position}});
        for (double value : unpackNumbers(blobOf(query.getColumn(2)), rows[block])) values.push_back(value);
        ++next;
    }
    skipTo(rows.size());
    return values;
}

std::vector<Channel> channelRows(SQLite::Database& database, Id<Recording> recording) {
    SQLite::Statement query(database, "SELECT log_column, role, idx, unit FROM channel WHERE recording = ? "
                                      "ORDER BY position");
    query.bind(1, recording.value);
    std::vector<Channel> channels;
    while (query.executeStep()) {
        Channel channel;
        channel.column = query.getColumn(0).getString();
        channel.role = knownWord(roleFromName(query.getColumn(1).getString()), query.getColumn(1));
        channel.index = query.getColumn(2).getInt();
        channel.fileUnit = knownWord(unitFromName(query.getColumn(3).getString()), query.getColumn(3));
        channels.push_back(std::move(channel));
    }
    return channels;
}

} // namespace

struct RecordingJournal::State {
    std::filesystem::path path;
    Id<Recording> recording;
    std::unique_ptr<SQLite::Database> database;
    std::size_t channels = 0;
    std::int64_t nextBlock = 0;    ///< of live_rows
    std::int64_t columnBlocks = 0; ///< written into channel_block
    std::vector<TimedRow> loose;   ///< stored in live_rows, not yet column by column
    std::int64_t samples = 0;
    double firstS = 0;
    double lastS = 0;

    [[noreturn]] void rethrow(const SQLite::Exception& error) const { rethrowSqlite(path, error); }

    void writeRows(const std::vector<TimedRow>& rows) {
        const std::size_t width = channels + 1;
        std::vector<double> numbers;
        numbers.reserve(rows.size() * width);
        for (const TimedRow& row : rows) {
            numbers.push_back(row.timeS);
            numbers.insert(numbers.end(), row.values.begin(), row.values.end());
            numbers.resize(numbers.size() + (channels - row.values.size()), nan);
        }
        const std::string data = packNumbers(numbers);
        SQLite::Statement insert(*database, "INSERT INTO live_rows VALUES (?, ?, ?, ?, ?)");
        insert.bind(1, recording.value);
        insert.bind(2, nextBlock);
        insert.bind(3, static_cast<std::int64_t>(rows.size()));
        insert.bind(4, static_cast<std::int64_t>(width));
        insert.bind(5, data.data(), static_cast<int>(data.size()));
        insert.exec();
    }

    /// The loose rows and `more` in columns, and out of live_rows.
    void writeColumns(const std::vector<TimedRow>& more) {
        SQLite::Statement insert(*database, "INSERT INTO channel_block VALUES (?, ?, ?, ?, ?)");
        std::vector<double> column;
        for (int position = timePosition; position < static_cast<int>(channels); ++position) {
            column.clear();
            for (const auto* part : std::initializer_list<const std::vector<TimedRow>*>{&loose, &more})
                for (const TimedRow& row : *part) {
                    const auto at = static_cast<std::size_t>(position);
                    column.push_back(position == timePosition ? row.timeS
                                     : at < row.values.size() ? row.values[at]
                                                              : nan);
                }
            const std::string data = packNumbers(column);
            insert.reset();
            insert.bind(1, recording.value);
            insert.bind(2, position);
            insert.bind(3, columnBlocks);
            insert.bind(4, static_cast<std::int64_t>(column.size()));
            insert.bind(5, data.data(), static_cast<int>(data.size()));
            insert.exec();
        }
        SQLite::Statement remove(*database, "DELETE FROM live_rows WHERE recording = ?");
        remove.bind(1, recording.value);
        remove.exec();
    }
};

RecordingJournal::RecordingJournal(const std::filesystem::path& project, Id<Recording> recording)
    : state_(std::make_unique<State>()) {
    state_->path = project;
    state_->recording = recording;
    try {
        state_->database = openDatabase(project.string(), SQLite::OPEN_READWRITE);
        state_->database->setBusyTimeout(5'000);             // the window writes in between
        state_->database->exec("PRAGMA synchronous = FULL"); // a commit is on the disk when it returns
    } catch (const SQLite::Exception& error) {
        state_->rethrow(error);
    }
}

RecordingJournal::~RecordingJournal() = default;
RecordingJournal::RecordingJournal(RecordingJournal&&) noexcept = default;

void RecordingJournal::addChannels(const std::vector<ChannelInfo>& channels) {
    try {
        SQLite::Transaction transaction(*state_->database);
        SQLite::Statement insert(*state_->database,
                                 "INSERT INTO channel VALUES (?, ?, ?, ?, ?, ?, 'live numbers', 0, x'')");
        auto position = static_cast<std::int64_t>(state_->channels);
        for (const ChannelInfo& channel : channels) {
            insert.reset();
            insert.bind(1, state_->recording.value);
            insert.bind(2, position++);
            insert.bind(3, channel.column);
            insert.bind(4, std::string(roleName(channel.role)));
            insert.bind(5, channel.index);
            insert.bind(6, std::string(unitName(channel.unit)));
            insert.exec();
        }
        transaction.commit();
        state_->channels += channels.size();
    } catch (const SQLite::Exception& error) {
        state_->rethrow(error);
    }
}

void RecordingJournal::append(const std::vector<TimedRow>& rows) {
    if (rows.empty()) return;
    State& state = *state_;
    const bool full = state.loose.size() + rows.size() >= blockRows;
    try {
        SQLite::Transaction transaction(*state.database);
        if (full)
            state.writeColumns(rows);
        else
            state.writeRows(rows);
        transaction.commit();
    } catch (const SQLite::Exception& error) {
        state.rethrow(error);
    }
    if (full) {
        state.loose.clear();
        ++state.columnBlocks;
    } else {
        state.loose.insert(state.loose.end(), rows.begin(), rows.end());
    }
    ++state.nextBlock;
    if (state.samples == 0) state.firstS = rows.front().timeS;
    state.samples += static_cast<std::int64_t>(rows.size());
    state.lastS = rows.back().timeS;
}

LiveExtent RecordingJournal::extent() const {
    return {state_->samples, state_->samples > 0 ? state_->lastS - state_->firstS : 0};
}

bool isLive(SQLite::Database& database, Id<Recording> recording) {
    SQLite::Statement query(database,
                            "SELECT 1 FROM channel WHERE recording = ? AND kind = 'live numbers' LIMIT 1");
    query.bind(1, recording.value);
    return query.executeStep();
}

Trace loadLiveTrace(SQLite::Database& database, Id<Recording> recording) {
    const SQLite::Transaction snapshot(database); // rows may be added meanwhile
    Trace trace;
    trace.channels = channelRows(database, recording);
    const auto blocks = timeBlocks(database, recording);
    trace.timeS = blocksOf(database, recording, timePosition, blocks);
    for (std::size_t i = 0; i < trace.channels.size(); ++i)
        trace.channels[i].values = blocksOf(database, recording, static_cast<int>(i), blocks);
    for (const RowBlock& block : rowBlocks(database, recording))
        for (std::size_t row = 0; row < block.rows; ++row) {
            const double* at = block.numbers.data() + row * block.width;
            trace.timeS.push_back(at[0]);
            for (std::size_t i = 0; i < trace.channels.size(); ++i)
                trace.channels[i].values.push_back(i + 1 < block.width ? at[i + 1] : nan);
        }
    requireTimeAxis(trace.timeS);
    const double first = trace.timeS.empty() ? 0 : trace.timeS.front();
    for (double& time : trace.timeS) time -= first;
    return trace;
}

LiveExtent liveExtent(SQLite::Database& database, Id<Recording> recording) {
    const SQLite::Transaction snapshot(database);
    const auto blocks = timeBlocks(database, recording);
    LiveExtent extent;
    std::vector<double> timeS = blocksOf(database, recording, timePosition, blocks);
    for (const RowBlock& block : rowBlocks(database, recording))
        for (std::size_t row = 0; row < block.rows; ++row) timeS.push_back(block.numbers[row * block.width]);
    requireTimeAxis(timeS);
    extent.samples = static_cast<std::int64_t>(timeS.size());
    extent.durationS = timeS.empty() ? 0 : timeS.back() - timeS.front();
    return extent;
}

} // namespace ibuki
