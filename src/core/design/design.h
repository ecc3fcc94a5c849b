// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The design of a study as one value: what varies inside a mount and what between
// mounts, the cells to be filled, blocks and order. Comparison, ageing and sweeps read it and never guess.

#include "core/domain/document.h"
#include "core/domain/plan.h"

#include <cstdint>
#include <string>
#include <vector>

namespace ibuki {

/// Where a factor varies. Between mounts every level needs mounts of its own (the experimental unit is the
/// mount); within a mount all its levels are seen on each mount (loads, later checks).
enum class Stratum { betweenMounts, withinMount };

struct DesignFactor {
    Stratum stratum = Stratum::betweenMounts;
    bool inSequence = false; ///< levels build on each other and cannot be shuffled
};

/// One combination of between-mount levels.
struct DesignCell {
    Id<Level> level;
    std::optional<Id<Level>> second;
    std::string name; ///< "Tern 11", "Tern 11, tall cooler"
    bool operator==(const DesignCell&) const = default;
};

/// What a comparison knows the mounts of a cell by: the level's id; of two levels an id of their own, which
/// no change of the order of levels changes (for ids below 2^31, which is all that a project counts up to).
std::int64_t groupId(const DesignCell& cell);

/// What one slot of the study is in this design.
struct DesignUnit {
    Id<Slot> slot;
    SlotKind kind = SlotKind::level;
    std::optional<std::size_t> cell; ///< index into cells; nothing for checks and for what cannot be told
    int block = 0; ///< as planned; of mounts that were not planned their day, counted from 1
    std::optional<Id<Mount>> mount;
    bool skipped = false;
};

struct Design {
    Id<Question> question;
    std::vector<DesignFactor> factors; ///< between mounts first
    std::vector<DesignCell> cells;
    std::vector<DesignUnit> units; ///< in order
};

/// The cell, as index, of a group that was compared by this design. @throws std::out_of_range for another
/// design's
std::size_t placeOfGroup(const Design& design, std::int64_t group);
const DesignCell& cellOfGroup(const Design& design, std::int64_t group);

Design designOf(const Document& document, const Question& question);

/// A mount that counts: made and not rejected.
bool isMade(const Document& document, const DesignUnit& unit);

/// Levels are seen again after a time on the same mount: the change inside a mount can be judged.
bool isSeenAgain(const Document& document, Id<Study> study);

/// Which chains of levels cannot be shuffled.
bool isInSequence(const Study& study);

} // namespace ibuki
