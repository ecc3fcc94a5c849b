// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What stands against a plan before anything is mounted: cautions that hold it, and lots that do not suffice.

#include "core/caution/caution.h"
#include "core/domain/study.h"

namespace ibuki {

struct BlockingCaution {
    Id<Material> material;
    Caution caution;
};

/// Of the question's materials at its site: stops that no reason has lifted, and dangers or stops that cannot
/// be judged until their questions are answered. Cautions of handling hold nothing.
std::vector<BlockingCaution> blockingCautions(const Document& document, const Question& question,
                                              Instant now);

/// The same for one material at one site of a configuration (may be nullptr).
std::vector<BlockingCaution> blockingCautions(const Document& document, const Material& material,
                                              const Site& site, const Configuration* configuration,
                                              Instant now);

struct Shortage {
    Id<Material> material;
    int mounts = 0;    ///< planned, not yet made
    double needed = 0; ///< by all of them, in `unit`
    double left = 0;   ///< in all lots of the material
    ContentUnit unit = ContentUnit::gram;
};

/// Materials of the question of whose lots less is left than its planned mounts need, each new application at
/// the question's site taking the usual dose or the face's area.
std::vector<Shortage> shortagesOf(const Document& document, const Question& question, Instant now);

} // namespace ibuki
