// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/order.h"

#include "core/base/input_error.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <numeric>
#include <random>

namespace ibuki {
namespace {

/// Draws without the library's distributions, which differ between machines.
class Draw {
public:
    explicit Draw(std::uint64_t seed) : engine_(seed) {}

    /// 0 … n−1, each equally likely: values beyond the last whole multiple of n are drawn again.
    std::size_t below(std::size_t n) {
        const std::uint64_t wide = n;
        const std::uint64_t limit = engine_.max() - engine_.max() % wide;
        std::uint64_t value = engine_();
        while (value >= limit) value = engine_();
        return static_cast<std::size_t>(value % wide);
    }

    /// Fisher and Yates 1938.
    template <class T> void shuffle(std::vector<T>& items) {
        for (std::size_t i = items.size(); i > 1; --i) std::swap(items[i - 1], items[below(i)]);
    }

private:
    std::mt19937_64 engine_;
};

/// Levels that stand side by side; usually one alone.
using SideBySide = std::vector<std::size_t>;

int rank(Placement placement) {
    switch (placement) {
    case Placement::lastInBlock:
        return 1;
    case Placement::endsEvening:
        return 2;
    default:
        return 0;
    }
}

/// Units of the levels that take part in every block, by the part of the block in which they stand.
std::vector<std::vector<SideBySide>> unitsByRank(const OrderInput& input) {
    std::map<int, SideBySide> together;
    std::vector<std::vector<SideBySide>> parts(3);
    for (std::size_t level = 0; level < input.levels.size(); ++level) {
        const LevelRule& rule = input.levels[level];
        if (rule.placement == Placement::lastOfAll || rule.placement == Placement::firstOfAll) continue;
        if (rule.together >= 0)
            together[rule.together].push_back(level);
        else
            parts[static_cast<std::size_t>(rank(rule.placement))].push_back({level});
    }
    for (auto& [number, unit] : together) {
        const int place = rank(input.levels[unit.front()].placement);
        for (std::size_t level : unit)
            if (rank(input.levels[level].placement) != place)
                throw InputError("order-together", {}, {{"one", unit.front() + 1}, {"other", level + 1}});
        parts[static_cast<std::size_t>(place)].push_back(std::move(unit));
    }
    return parts;
}

/// Orders of the units of one part, a block each: rows of Williams squares, rows and labels drawn anew for
/// every square.
std::vector<std::vector<std::size_t>> partOrders(std::size_t units, int blocks, Draw& draw) {
    std::vector<std::vector<std::size_t>> orders;
    if (units == 0) return std::vector<std::vector<std::size_t>>(static_cast<std::size_t>(blocks));
    std::vector<std::vector<std::size_t>> rows;
    while (static_cast<int>(orders.size()) < blocks) {
        if (rows.empty()) {
            rows = williamsRows(units);
            draw.shuffle(rows);
            std::vector<std::size_t> labels(units);
            std::iota(labels.begin(), labels.end(), std::size_t{0});
            draw.shuffle(labels);
            for (auto& row : rows)
                for (std::size_t& entry : row) entry = labels[entry];
        }
        orders.push_back(std::move(rows.back()));
        rows.pop_back();
    }
    return orders;
}

/// Which blocks have the level: all, or as many as its tube lasts for, drawn at random.
std::vector<bool> blocksOf(const LevelRule& rule, int blocks, Draw& draw) {
    std::vector<std::size_t> numbers(static_cast<std::size_t>(blocks));
    std::iota(numbers.begin(), numbers.end(), std::size_t{0});
    std::vector<bool> has(numbers.size(), true);
    const int most = std::clamp(rule.mostMounts.value_or(blocks), 0, blocks);
    if (most == blocks) return has;
    draw.shuffle(numbers);
    has.assign(numbers.size(), false);
    for (int i = 0; i < most; ++i) has[numbers[static_cast<std::size_t>(i)]] = true;
    return has;
}

/// Checks at evenly spread places, the first before everything, the last behind everything.
std::vector<OrderedMount> withChecks(const std::vector<OrderedMount>& mounts, int checks) {
    if (checks == 0 || mounts.empty()) return mounts;
    std::vector<OrderedMount> all;
    int placed = 0;
    for (std::size_t i = 0; i <= mounts.size(); ++i) {
        const auto due = [&] {
            if (placed == checks) return false;
            if (checks == 1) return i == 0;
            const double at = static_cast<double>(placed) * static_cast<double>(mounts.size())
                              / static_cast<double>(checks - 1);
            return static_cast<double>(i) + 1e-9 >= at;
        };
        while (due()) {
            const int block = i < mounts.size() ? mounts[i].block : mounts.back().block;
            all.push_back({std::nullopt, block});
            ++placed;
        }
        if (i < mounts.size()) all.push_back(mounts[i]);
    }
    return all;
}

/// Levels in their given order; every level is a block of its own, since nothing can be shuffled.
std::vector<OrderedMount> sequence(const OrderInput& input) {
    std::vector<OrderedMount> mounts;
    for (std::size_t level = 0; level < input.levels.size(); ++level) {
        const int most = std::clamp(input.levels[level].mostMounts.value_or(input.blocks), 0, input.blocks);
        for (int i = 0; i < most; ++i) mounts.push_back({level, static_cast<int>(level) + 1});
    }
    return mounts;
}

void check(const OrderInput& input) {
    if (input.levels.empty()) throw InputError("order-levels", {});
    if (input.blocks < 1) throw InputError("order-blocks", {}, {{"count", input.blocks}});
    if (input.checks < 0) throw InputError("order-checks", {}, {{"count", input.checks}});
}

} // namespace

std::vector<std::vector<std::size_t>> williamsRows(std::size_t k) {
    std::vector<std::vector<std::size_t>> rows;
    if (k == 0) return rows;
    if (k == 1) return {{0}};
    std::vector<std::size_t> first(k); // 0, 1, k−1, 2, k−2, …
    for (std::size_t i = 0; i < k; ++i) first[i] = i == 0 ? 0 : i % 2 == 1 ? (i + 1) / 2 : k - i / 2;
    for (std::size_t shift = 0; shift < k; ++shift) {
        std::vector<std::size_t> row(k);
        for (std::size_t i = 0; i < k; ++i) row[i] = (first[i] + shift) % k;
        rows.push_back(row);
        if (k % 2 == 1) {
            std::reverse(row.begin(), row.end());
            rows.push_back(std::move(row));
        }
    }
    return rows;
}

std::vector<OrderedMount> orderMounts(const OrderInput& input) {
    check(input);
    if (input.inSequence) return withChecks(sequence(input), input.checks);
    Draw draw(input.seed);
    const auto parts = unitsByRank(input);
    std::vector<std::vector<std::vector<std::size_t>>> orders;
    for (const auto& part : parts) orders.push_back(partOrders(part.size(), input.blocks, draw));
    std::vector<std::vector<bool>> has;
    for (const LevelRule& rule : input.levels) has.push_back(blocksOf(rule, input.blocks, draw));

    std::vector<OrderedMount> mounts;
    const auto addOutside = [&](Placement placement) {
        std::vector<std::size_t> levels;
        for (std::size_t level = 0; level < input.levels.size(); ++level)
            if (input.levels[level].placement == placement) levels.push_back(level);
        for (int block = 0; block < input.blocks; ++block) {
            draw.shuffle(levels);
            for (std::size_t level : levels)
                if (has[level][static_cast<std::size_t>(block)])
                    mounts.push_back({level, placement == Placement::firstOfAll ? 1 : input.blocks});
        }
    };
    addOutside(Placement::firstOfAll);
    for (int block = 0; block < input.blocks; ++block)
        for (std::size_t part = 0; part < parts.size(); ++part)
            for (std::size_t which : orders[part][static_cast<std::size_t>(block)]) {
                SideBySide unit = parts[part][which];
                draw.shuffle(unit);
                for (std::size_t level : unit)
                    if (has[level][static_cast<std::size_t>(block)]) mounts.push_back({level, block + 1});
            }
    addOutside(Placement::lastOfAll);
    return withChecks(mounts, input.checks);
}

} // namespace ibuki
