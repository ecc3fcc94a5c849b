// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A chain of changes in words: each step credited with its own gain on the one before, steps that cannot be
// separated as one.

#include "store/paper/sentences.h"

namespace ibuki {

/// Told as a step of a chain of changes.
bool isStep(const Evidence& evidence, const PairComparison& pair);

/// The groups stand in the order of the steps.
std::vector<VerdictSentence> stepSentences(const Comparison& comparison, std::string_view unit);

} // namespace ibuki
