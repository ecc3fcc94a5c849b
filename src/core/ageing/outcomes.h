// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Things that happened to mounts or did not, by material: what was stated, and what was seen when a joint was
// opened (docs/methods.md, "Drift", G.7).

#include "core/domain/ageing.h"
#include "core/domain/document.h"
#include "core/models/survival.h"

namespace ibuki {

struct OutcomeMount {
    Id<Mount> mount;
    std::string name;
    bool happened = false;
    double cycles = 0; ///< seen until it was looked at
    std::optional<double> coldestC;
    bool seen = false; ///< from the look at its joint
};

struct MaterialOutcome {
    std::optional<Id<Material>> material;
    std::string name;
    std::vector<OutcomeMount> mounts;
    int happened = 0;
    Interval share;                     ///< 95 %, exact
    std::vector<SurvivalStep> survival; ///< by cycles
    std::optional<double> coldestSurvivedC;
    int trials() const { return static_cast<int>(mounts.size()); }
};

struct OutcomeTable {
    OutcomeKind kind = OutcomeKind::pumpedOut;
    std::vector<MaterialOutcome> materials; ///< most often happened first
    struct Pair {
        std::size_t a = 0;
        std::size_t b = 0;
        double sharesP = 1;              ///< Fisher's exact test, held for all pairs together (Holm)
        std::optional<double> survivalP; ///< log-rank over cycles, likewise; nothing where it cannot be told
    };
    std::vector<Pair> pairs;
    std::vector<Message> reported;
};

/// One a kind for which anything is known; of all benches of the project.
std::vector<OutcomeTable> outcomeTables(const Document& document);

} // namespace ibuki
