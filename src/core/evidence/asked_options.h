// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a question asks of its comparison, as far as the runs can bear it.

#include "core/domain/document.h"
#include "core/domain/study.h"
#include "core/evidence/run_rows.h"

namespace ibuki {

struct AskedOptions {
    CompareOptions options;
    std::vector<Flag> flags; ///< what is asked and cannot be done, and why
};

/// Margin, confidence (shared among the looks that were declared), what is taken out, spread. values: of
/// comparedRuns. The reference is not among it: with a second factor it is another at each of its levels.
AskedOptions askedOptions(const Document& document, const Question& question,
                          const std::vector<RunValue>& values);

/// Whether every run has a name of its block: evenings have, people where it is stated who mounted.
bool areBlocksStated(const std::vector<RunValue>& values);

/// What was taken out of the comparison, in the unit of its values.
std::vector<Flag> takenOutFlags(const Comparison& comparison, const Question& question,
                                const std::vector<RunValue>& values);

} // namespace ibuki
