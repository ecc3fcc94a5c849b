// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Logs with one JSON object a sample.

#include <string>
#include <string_view>

namespace ibuki {

/// The first lines that are not empty are objects.
bool looksLikeJsonLines(std::string_view text);

/// The same log as separated text: a header of all keys in order of appearance (those of objects inside are
/// joined by a space, list entries get their number), then one line a line of the log, so that line n of the
/// log is line n + 1. A line that is no object becomes an empty one. Throws InputError (log-not-a-log) when
/// none is.
std::string separatedFromJsonLines(std::string_view text, const std::string& fileName);

} // namespace ibuki
