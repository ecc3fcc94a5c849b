// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Compact letter display by insert and absorb (Piepho 2004): two groups share a letter if and only if they
// were not told apart. A shared letter does not mean equal.

#include <string>
#include <utility>
#include <vector>

namespace ibuki {

struct Tiers {
    std::vector<std::string> letters;      ///< one entry a group, "ab"; the 53rd tier is "a'"
    std::vector<std::vector<int>> members; ///< group indexes, letter by letter, best first
};

/// ranks[i]: place of group i, best 0. different: pairs of group indexes that were told apart.
/// Nothing when there would be more than 2,000 tiers.
Tiers letterTiers(const std::vector<int>& ranks, const std::vector<std::pair<int, int>>& different);

} // namespace ibuki
