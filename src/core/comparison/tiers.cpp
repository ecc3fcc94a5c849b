// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/tiers.h"

#include <algorithm>
#include <cstdint>
#include <string_view>

namespace ibuki {
namespace {

constexpr std::size_t mostColumns = 2'000;

/// Ranks that share a letter.
class Column {
public:
    explicit Column(std::size_t ranks) : bits_((ranks + 63) / 64, 0) {
        for (std::size_t rank = 0; rank < ranks; ++rank) bits_[rank / 64] |= bit(rank);
    }
    bool has(std::size_t rank) const { return (bits_[rank / 64] & bit(rank)) != 0; }
    void drop(std::size_t rank) { bits_[rank / 64] &= ~bit(rank); }
    bool holdsAllOf(const Column& other) const {
        for (std::size_t i = 0; i < bits_.size(); ++i)
            if ((other.bits_[i] & ~bits_[i]) != 0) return false;
        return true;
    }
    std::vector<int> ranks() const {
        std::vector<int> all;
        for (std::size_t rank = 0; rank < 64 * bits_.size(); ++rank)
            if (has(rank)) all.push_back(static_cast<int>(rank));
        return all;
    }

private:
    static std::uint64_t bit(std::size_t rank) { return std::uint64_t{1} << (rank % 64); }
    std::vector<std::uint64_t> bits_;
};

/// The columns with those that hold both parted in two. A part that another column holds is dropped; columns
/// that were not parted stay, since none of them was held before.
std::vector<Column> parted(std::vector<Column> columns, std::size_t first, std::size_t second) {
    std::vector<Column> kept;
    std::vector<Column> parts;
    for (Column& column : columns) {
        if (!column.has(first) || !column.has(second)) {
            kept.push_back(std::move(column));
            continue;
        }
        for (std::size_t left : {first, second}) {
            parts.push_back(column);
            parts.back().drop(left);
        }
    }
    for (Column& part : parts)
        if (std::none_of(kept.begin(), kept.end(), [&](const Column& one) { return one.holdsAllOf(part); })) {
            std::erase_if(kept, [&](const Column& one) { return part.holdsAllOf(one); }); // earlier parts
            kept.push_back(std::move(part));
        }
    return kept;
}

/// "a" to "Z", then "a'" and so on.
std::string letter(std::size_t tier) {
    static constexpr std::string_view alphabet = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ";
    return alphabet[tier % alphabet.size()] + std::string(tier / alphabet.size(), '\'');
}

} // namespace

Tiers letterTiers(const std::vector<int>& ranks, const std::vector<std::pair<int, int>>& different) {
    Tiers tiers;
    tiers.letters.resize(ranks.size());
    if (ranks.empty()) return tiers;
    std::vector<Column> columns{Column(ranks.size())};
    for (const auto& [a, b] : different) {
        columns = parted(std::move(columns), static_cast<std::size_t>(ranks[static_cast<std::size_t>(a)]),
                         static_cast<std::size_t>(ranks[static_cast<std::size_t>(b)]));
        if (columns.size() > mostColumns) return {}; // they can be as many as 3^(n/3)
    }
    std::vector<std::vector<int>> shared;
    for (const Column& column : columns) shared.push_back(column.ranks());
    std::sort(shared.begin(), shared.end());
    std::vector<int> groupAtRank(ranks.size());
    for (std::size_t i = 0; i < ranks.size(); ++i)
        groupAtRank[static_cast<std::size_t>(ranks[i])] = static_cast<int>(i);
    for (std::size_t c = 0; c < shared.size(); ++c) {
        std::vector<int> members;
        for (int rank : shared[c]) {
            const int group = groupAtRank[static_cast<std::size_t>(rank)];
            members.push_back(group);
            tiers.letters[static_cast<std::size_t>(group)] += letter(c);
        }
        tiers.members.push_back(std::move(members));
    }
    return tiers;
}

} // namespace ibuki
