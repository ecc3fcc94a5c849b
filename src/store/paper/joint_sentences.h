// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Several responses of the same mounts in words (docs/methods.md, "Several responses").

#include "core/evidence/joint_reading.h"
#include "store/paper/sentences.h"

namespace ibuki {

/// "Tern 11 ran no cooler than Petrel 7, but was 7 to 9 % faster by score."
std::vector<VerdictSentence>
jointSentences(const Evidence& evidence, const std::vector<SideComparison>& sides, const Question& question);

/// What leads where groups were held at the temperature limit: K/W, else the power that was carried. Empty
/// where nothing was held at it, or neither was measured.
std::vector<VerdictSentence>
limitSentences(const Evidence& evidence, const std::vector<SideComparison>& sides, const Question& question);

/// The verdict with all of it: what K/W or power tell of levels at the limit behind what is settled (first
/// where nothing is), responses read together behind what is open, caveats last.
std::vector<VerdictSentence> allSentences(const Evidence& evidence, const std::vector<SideComparison>& sides,
                                          const Question& question);

/// "score", or the reading's own name.
std::string sideName(const SideComparison& side);
/// Decimals that a response's margin is worth: enough to tell a third of it.
int sideDecimals(const SideComparison& side);

} // namespace ibuki
