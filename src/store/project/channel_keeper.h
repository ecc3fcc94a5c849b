// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The channels of a log that no figure is made from, kept in the project all the same: streamed from the log
// in blocks, so that a log of gigabytes needs no more memory than its channels with a role.

#include "core/domain/mount.h"
#include "store/log/log_reader.h"
#include "store/log/mapped_file.h"

#include <filesystem>

namespace ibuki {

struct KeepTask {
    Id<Recording> recording;
    std::string log; ///< path of the file that was brought in
    std::string sha256;
    LogOptions options;         ///< that it was read with
    std::vector<bool> keptRows; ///< LogReading::keptRows
    FileStamp stamp;            ///< when it was read; one that still has it need not be hashed again
};

inline constexpr std::size_t keptBlockRows = 65'536;

/// Writes them through a connection of its own, one transaction a block, beside the window's. Throws
/// InputError (log-changed, when the file is no longer the one that was brought in; what reading and writing
/// throw) and Cancelled; blocks written by then stay, the channels count as not kept.
void keepOtherChannels(const std::filesystem::path& project, const KeepTask& task);

/// One kept channel, whole; nothing when it was not kept to its end. Throws InputError (project-damaged).
std::optional<Channel> loadKeptChannel(const std::filesystem::path& project, Id<Recording> recording,
                                       const std::string& column);

} // namespace ibuki
