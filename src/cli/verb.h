// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One subcommand: it declares its options on a CLI::App and leaves behind what to do once they are parsed.

#include <functional>
#include <iosfwd>
#include <stdexcept>
#include <string>

namespace CLI {
class App;
}

namespace ibuki {

/// Wrong usage that only shows after parsing, for example an unknown metric: exit status 2.
struct UsageError : std::runtime_error {
    using std::runtime_error::runtime_error;
};

using VerbBody = std::function<void(std::ostream& out)>;

VerbBody addReduce(CLI::App& app);
VerbBody addCompare(CLI::App& app);
VerbBody addSimulate(CLI::App& app);
VerbBody addReport(CLI::App& app);
VerbBody addDose(CLI::App& app);
VerbBody addCut(CLI::App& app);
VerbBody addPlan(CLI::App& app);

} // namespace ibuki
