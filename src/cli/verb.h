// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// One subcommand: it declares its options and leaves behind what to do once they are parsed.

#include "cli/options.h"

#include <functional>
#include <iosfwd>
#include <stdexcept>
#include <string>

namespace ibuki {

/// Wrong usage that only shows after parsing, for example an unknown metric: exit status 2.
struct UsageError : std::runtime_error {
    using std::runtime_error::runtime_error;
};

using VerbBody = std::function<void(std::ostream& out)>;

VerbBody addReduce(Options options);
VerbBody addCompare(Options options);
VerbBody addSweep(Options options);
VerbBody addAgeing(Options options);
VerbBody addHealth(Options options);
VerbBody addValue(Options options);
VerbBody addHeatpath(Options options);
VerbBody addCoverage(Options options);
VerbBody addRehearse(Options options);
VerbBody addSimulate(Options options);
VerbBody addImport(Options options);
VerbBody addReport(Options options);
VerbBody addDose(Options options);
VerbBody addCut(Options options);
VerbBody addPlan(Options options);
VerbBody addNew(Options options);
VerbBody addSensors(Options options);
VerbBody addRecord(Options options);
VerbBody addRecordings(Options options);
VerbBody addTrace(Options options);

} // namespace ibuki
