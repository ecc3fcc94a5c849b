// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/shown_groups.h"

namespace ibuki {

ShownGroups without(const Comparison& comparison, const std::set<std::int64_t>& hidden) {
    ShownGroups shown{comparison, {}};
    shown.comparison.groups.clear();
    shown.comparison.pairs.clear();
    shown.comparison.tiers.clear();
    std::vector<std::optional<std::size_t>> place;
    for (const GroupSummary& group : comparison.groups) {
        const bool kept = !hidden.contains(group.id);
        place.push_back(kept ? std::optional(shown.comparison.groups.size()) : std::nullopt);
        if (kept) shown.comparison.groups.push_back(group);
    }
    for (PairComparison pair : comparison.pairs) {
        const bool kept = place[pair.a] && place[pair.b];
        shown.pairs.push_back(kept ? std::optional(shown.comparison.pairs.size()) : std::nullopt);
        if (!kept) continue;
        pair.a = *place[pair.a];
        pair.b = *place[pair.b];
        shown.comparison.pairs.push_back(pair);
    }
    for (const auto& tier : comparison.tiers) {
        std::vector<std::size_t> members;
        for (std::size_t group : tier)
            if (place[group]) members.push_back(*place[group]);
        if (!members.empty()) shown.comparison.tiers.push_back(std::move(members));
    }
    return shown;
}

} // namespace ibuki
