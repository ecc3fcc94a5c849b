// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Log bytes → trace. The text is scanned once in place; only columns that are wanted are turned into numbers.

#include "core/trace/trace.h"

#include <filesystem>
#include <stop_token>
#include <string_view>

namespace ibuki {

struct LogOptions {
    bool allChannels = false; ///< keep columns without a role too (for import)
    RoleMap roles;            ///< overrides, by header
    std::stop_token stop;     ///< asked for now and then; readLog then throws Cancelled
};

/// A read that was called off; not an error.
struct Cancelled {};

/// Throws InputError (log-empty, not-text, log-not-a-log, log-no-time, log-no-samples, log-no-channels) with
/// the file's name and, where they apply, line and column.
Trace readLog(std::string_view bytes, const std::string& fileName, const LogOptions& options = {});
Trace readLogFile(const std::filesystem::path& path, const LogOptions& options = {});

} // namespace ibuki
