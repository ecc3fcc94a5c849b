// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The command as a function, so that tests can call it without a process.

#include <iosfwd>
#include <string>
#include <vector>

namespace ibuki {

/// Exit status as docs/cli.md says: 0 done, 1 the input cannot be used, 2 wrong usage.
int runCli(const std::vector<std::string>& arguments, std::ostream& out, std::ostream& err);

} // namespace ibuki
