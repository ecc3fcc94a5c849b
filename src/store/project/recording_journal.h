// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Rows of a recording that is made here, stored as they come. Each append is one transaction that is on the
// disk when it returns: what was appended survives a kill and a power cut. Rows stand together in `live_rows`
// until there are enough of them; then they go, column by column, into `channel_block` (position −1 is the
// time). Nothing of another recording is ever touched, and memory does not grow with the length.

#include "core/domain/mount.h"
#include "core/trace/channel_info.h"
#include "core/trace/timed_row.h"
#include "core/trace/trace.h"

#include <filesystem>
#include <memory>
#include <vector>

namespace SQLite {
class Database;
}

namespace ibuki {

/// What of a recording is stored.
struct LiveExtent {
    std::int64_t samples = 0;
    double durationS = 0; ///< from the first row to the last
    bool operator==(const LiveExtent&) const = default;
};

class RecordingJournal {
public:
    static constexpr std::size_t blockRows = 4'096;

    /// Of a recording that is in the project and has no rows yet, through a connection of its own beside the
    /// project's. Throws InputError (file-not-writable, disk-full, project-locked).
    RecordingJournal(const std::filesystem::path& project, Id<Recording> recording);
    ~RecordingJournal();
    RecordingJournal(RecordingJournal&&) noexcept;

    /// At the end of those there are; rows before have nothing in them.
    void addChannels(const std::vector<ChannelInfo>& channels);

    /// Values of a row may be fewer than the channels: the rest is NaN. Throws InputError (disk-full, …) and
    /// has stored none of them then; they may be appended again.
    void append(const std::vector<TimedRow>& rows);

    LiveExtent extent() const;

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// Time and channels of a recording that was made here, as far as they are stored. Throws InputError
/// (project-damaged) for what cannot be.
Trace loadLiveTrace(SQLite::Database& database, Id<Recording> recording);
LiveExtent liveExtent(SQLite::Database& database, Id<Recording> recording);
bool isLive(SQLite::Database& database, Id<Recording> recording);

} // namespace ibuki
