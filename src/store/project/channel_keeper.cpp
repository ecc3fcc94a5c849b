// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/channel_keeper.h"

#include "core/base/input_error.h"
#include "store/digest.h"
#include "store/project/database.h"
#include "store/project/packing.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <map>

namespace ibuki {
namespace {

[[noreturn]] void rethrowOfChannels(const std::filesystem::path& path, const SQLite::Exception& error) {
    throw InputError("file-not-writable.channels", {path.string(), {}, {}}, {{"reason", error.what()}});
}

/// Writes blocks as they come; those of one number go into one transaction.
class BlockWriter {
public:
    BlockWriter(SQLite::Database& database, Id<Recording> recording)
        : database_(database),
          recording_(recording),
          insert_(database, "INSERT OR REPLACE INTO channel_block (recording, position, block, samples, "
                            "data) VALUES (?, ?, ?, ?, ?)") {}

    void write(const ChannelBlock& block) {
        if (!transaction_ || block.block != current_) {
            if (transaction_) transaction_->commit();
            transaction_.emplace(database_);
            current_ = block.block;
        }
        const bool numbers = !block.values.empty();
        const std::string data = numbers ? packNumbers(block.values) : packWords(block.words);
        const std::size_t rows = numbers ? block.values.size() : block.words.size();
        insert_.reset();
        insert_.bind(1, recording_.value);
        insert_.bind(2, static_cast<std::int64_t>(block.channel));
        insert_.bind(3, static_cast<std::int64_t>(block.block));
        insert_.bind(4, static_cast<std::int64_t>(rows));
        insert_.bind(5, data.data(), static_cast<int>(data.size()));
        insert_.exec();
        kinds_[block.channel] = numbers;
        samples_[block.channel] += static_cast<std::int64_t>(rows);
    }

    /// The channels count as kept once their rows say how many samples they have.
    void finish() {
        if (!transaction_) return;
        SQLite::Statement update(
            database_, "UPDATE channel SET kind = ?, samples = ? WHERE recording = ? AND position = ?");
        for (const auto& [channel, numbers] : kinds_) {
            update.reset();
            update.bind(1, numbers ? "number blocks" : "word blocks");
            update.bind(2, samples_[channel]);
            update.bind(3, recording_.value);
            update.bind(4, static_cast<std::int64_t>(channel));
            update.exec();
        }
        transaction_->commit();
        transaction_.reset();
    }

private:
    SQLite::Database& database_;
    Id<Recording> recording_;
    SQLite::Statement insert_;
    std::optional<SQLite::Transaction> transaction_;
    std::size_t current_ = 0;
    std::map<std::size_t, bool> kinds_;
    std::map<std::size_t, std::int64_t> samples_;
};

} // namespace

void keepOtherChannels(const std::filesystem::path& project, const KeepTask& task) {
    const MappedFile file(task.log);
    if (file.stamp() != task.stamp && sha256(file.bytes()) != task.sha256)
        throw InputError("log-changed", {task.log, {}, {}});
    try {
        const auto opened = openDatabase(project.string(), SQLite::OPEN_READWRITE);
        SQLite::Database& database = *opened;
        database.setBusyTimeout(10'000); // the window writes between the blocks
        BlockWriter writer(database, task.recording);
        streamOtherChannels(file.bytes(), task.log, task.options, task.keptRows, keptBlockRows,
                            [&](const ChannelBlock& block) { writer.write(block); });
        file.requireWhole();
        writer.finish();
    } catch (const SQLite::Exception& error) {
        rethrowOfChannels(project, error);
    }
}

std::optional<Channel> loadKeptChannel(const std::filesystem::path& project, Id<Recording> recording,
                                       const std::string& column) {
    try {
        const auto opened = openDatabase(project.string(), SQLite::OPEN_READONLY);
        const SQLite::Database& database = *opened;
        SQLite::Statement entry(
            database, "SELECT position, unit, kind, samples FROM channel WHERE recording = ? AND "
                      "log_column = ? AND kind IN ('number blocks', 'word blocks') ORDER BY position");
        entry.bind(1, recording.value);
        entry.bind(2, column);
        if (!entry.executeStep()) return std::nullopt;
        Channel channel;
        channel.column = column;
        channel.fileUnit = unitFromName(entry.getColumn(1).getString()).value_or(Unit::none);
        const bool numbers = entry.getColumn(2).getString() == "number blocks";
        const auto samples = static_cast<std::size_t>(entry.getColumn(3).getInt64());
        SQLite::Statement blocks(
            database,
            "SELECT samples, data FROM channel_block WHERE recording = ? AND position = ? ORDER BY block");
        blocks.bind(1, recording.value);
        blocks.bind(2, entry.getColumn(0).getInt64());
        while (blocks.executeStep()) {
            const auto count = static_cast<std::size_t>(blocks.getColumn(0).getInt64());
            if (count > keptBlockRows)
                throw InputError("project-damaged.count", {project.string(), {}, {}}, {{"count", count}});
            const std::string_view data(static_cast<const char*>(blocks.getColumn(1).getBlob()),
                                        static_cast<std::size_t>(blocks.getColumn(1).getBytes()));
            if (numbers)
                for (double value : unpackNumbers(data, count)) channel.values.push_back(value);
            else
                for (std::string& word : unpackWords(data, count)) channel.words.push_back(std::move(word));
        }
        const std::size_t found = numbers ? channel.values.size() : channel.words.size();
        return found == samples ? std::optional(std::move(channel)) : std::nullopt;
    } catch (const SQLite::Exception& error) {
        rethrowOfChannels(project, error);
    }
}

} // namespace ibuki
