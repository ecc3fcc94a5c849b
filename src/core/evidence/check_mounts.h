// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a study's check mounts say of its bench, and what that does to its verdict (docs/methods.md, D.20).

#include "core/evidence/evidence.h"
#include "core/series/bench_health.h"

namespace ibuki {

struct CheckEvidence {
    std::vector<Id<Mount>> mounts; ///< the check mounts with a figure, in their order; beside health->points
    std::optional<BenchHealth> health;
    std::optional<Message> reason;       ///< when there is none
    std::vector<Id<Mount>> touched;      ///< compared mounts made since the last check mount before it showed
    std::optional<Comparison> corrected; ///< when the bench drifts: with the mounts' order in the model
};

/// evidence: of the question.
CheckEvidence checkEvidence(const Question& question, const Evidence& evidence);

/// The drift is told apart from none at 95 %.
bool drifts(const BenchHealth& health);

} // namespace ibuki
