// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/tiers.h"

#include <algorithm>
#include <set>

namespace ibuki {
namespace {

using Column = std::set<int>; ///< ranks that share a letter

std::vector<Column> absorbed(std::vector<Column> columns) {
    std::vector<Column> kept;
    for (std::size_t i = 0; i < columns.size(); ++i) {
        bool covered = false;
        for (std::size_t j = 0; j < columns.size() && !covered; ++j) {
            if (i == j
                || !std::includes(columns[j].begin(), columns[j].end(), columns[i].begin(), columns[i].end()))
                continue;
            covered = columns[i] != columns[j] || j < i; // of equal columns the first stays
        }
        if (!covered) kept.push_back(columns[i]);
    }
    return kept;
}

} // namespace

Tiers letterTiers(const std::vector<int>& ranks, const std::vector<std::pair<int, int>>& different) {
    static const std::string alphabet = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ";
    Tiers tiers;
    tiers.letters.resize(ranks.size());
    if (ranks.empty()) return tiers;
    std::vector<Column> columns{Column(ranks.begin(), ranks.end())};
    for (const auto& [a, b] : different) {
        const int first = ranks[static_cast<std::size_t>(a)];
        const int second = ranks[static_cast<std::size_t>(b)];
        std::vector<Column> next;
        for (const Column& column : columns) {
            if (!column.contains(first) || !column.contains(second)) {
                next.push_back(column);
                continue;
            }
            for (int left : {first, second}) {
                Column copy = column;
                copy.erase(left);
                next.push_back(std::move(copy));
            }
        }
        columns = absorbed(std::move(next));
    }
    std::sort(columns.begin(), columns.end());
    std::vector<int> groupAtRank(ranks.size());
    for (std::size_t i = 0; i < ranks.size(); ++i)
        groupAtRank[static_cast<std::size_t>(ranks[i])] = static_cast<int>(i);
    for (std::size_t c = 0; c < columns.size(); ++c) {
        std::vector<int> members;
        for (int rank : columns[c]) {
            const int group = groupAtRank[static_cast<std::size_t>(rank)];
            members.push_back(group);
            tiers.letters[static_cast<std::size_t>(group)] += alphabet[std::min(c, alphabet.size() - 1)];
        }
        tiers.members.push_back(std::move(members));
    }
    return tiers;
}

} // namespace ibuki
