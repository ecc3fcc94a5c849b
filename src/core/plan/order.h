// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The order of mounts: randomised complete blocks, every block with each level once. Free levels follow the
// rows of Williams squares (Williams 1949) under a random relabelling, so that no level keeps a place and
// followers vary; levels with a rule stand where it says. Check mounts of one known material are spread from
// the first place to the last. The same seed gives the same order on every machine.

#include "core/domain/study.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace ibuki {

struct LevelRule {
    Placement placement = Placement::anywhere; ///< automatic counts as anywhere here
    std::optional<int> mostMounts;             ///< a short tube: only so many blocks get it
    int together = -1; ///< levels of one number ≥ 0 need no new mount between them: they stand side by side
};

struct OrderInput {
    std::vector<LevelRule> levels;
    int blocks = 3; ///< mounts of each level
    int checks = 0;
    bool inSequence = false; ///< levels build on each other: all mounts of one before those of the next
    std::uint64_t seed = 1;
};

struct OrderedMount {
    std::optional<std::size_t> level; ///< nothing: a check mount
    int block = 0;                    ///< from 1
    bool operator==(const OrderedMount&) const = default;
};

/// Throws InputError (order-levels, order-blocks, order-checks, order-evening) for an order that cannot be:
/// no level, no block, a negative number of checks, a level kept together with one that stands elsewhere.
std::vector<OrderedMount> orderMounts(const OrderInput& input);

/// k rows (2k for an odd k > 1) of 0 … k−1: every number once in each column and, over all rows, after every
/// other equally often.
std::vector<std::vector<std::size_t>> williamsRows(std::size_t k);

/// What an order costs, whoever made it.
struct LevelInOrder {
    double meanPlace = 0; ///< of its mounts, 1 is the first; checks count
    int first = 0;        ///< blocks in which it opens
    int mounts = 0;
};

struct OrderCosts {
    std::vector<LevelInOrder> levels;
    std::size_t earliest = 0; ///< level with the smallest mean place
    std::size_t latest = 0;
    double spread = 0; ///< places between the two: a drift of d a mount looks like spread × d between them
    double driftInflation = 1; ///< of a pair's variance, worst pair, when the drift is taken out: 1/(1 − R²)
    std::vector<std::size_t> alwaysFirst; ///< levels that open every block
    std::vector<std::size_t> gathered;    ///< levels whose mounts stand in one row, with others elsewhere
    std::vector<std::pair<std::size_t, int>> missing; ///< level, block without it
};

/// levels: how many there are. Blocks are read from the mounts.
OrderCosts orderCosts(const std::vector<OrderedMount>& order, std::size_t levels);

} // namespace ibuki
