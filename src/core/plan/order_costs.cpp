// SPDX-License-Identifier: GPL-3.0-or-later
// What an order costs: how far levels stand apart in time, and what a drifting bench would make of it.

#include "core/plan/order.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace ibuki {
namespace {

/// Places (1 is the first) of each level's mounts.
std::vector<std::vector<double>> placesOf(const std::vector<OrderedMount>& order, std::size_t levels) {
    std::vector<std::vector<double>> places(levels);
    for (std::size_t i = 0; i < order.size(); ++i)
        if (order[i].level && *order[i].level < levels)
            places[*order[i].level].push_back(static_cast<double>(i + 1));
    return places;
}

/// Worst ratio over all pairs of the variance of their difference with the place as covariate to that
/// without: 1 + (x̄_i − x̄_j)² / (S (1/n_i + 1/n_j)), S the sum of squares of places inside levels
/// (docs/methods.md, "What an order costs").
double worstInflation(const std::vector<std::vector<double>>& places,
                      const std::vector<LevelInOrder>& levels) {
    double inside = 0;
    for (std::size_t i = 0; i < places.size(); ++i)
        for (double place : places[i]) inside += std::pow(place - levels[i].meanPlace, 2);
    double worst = 1;
    for (std::size_t i = 0; i < places.size(); ++i)
        for (std::size_t j = i + 1; j < places.size(); ++j) {
            if (places[i].empty() || places[j].empty()) continue;
            const double apart = levels[i].meanPlace - levels[j].meanPlace;
            const double weight = 1.0 / levels[i].mounts + 1.0 / levels[j].mounts;
            if (inside > 0)
                worst = std::max(worst, 1 + apart * apart / (inside * weight));
            else if (apart != 0)
                worst = std::numeric_limits<double>::infinity();
        }
    return worst;
}

} // namespace

OrderCosts orderCosts(const std::vector<OrderedMount>& order, std::size_t levels) {
    OrderCosts costs;
    costs.levels.resize(levels);
    const auto places = placesOf(order, levels);
    for (std::size_t i = 0; i < levels; ++i) {
        double sum = 0;
        for (double place : places[i]) sum += place;
        costs.levels[i].mounts = static_cast<int>(places[i].size());
        costs.levels[i].meanPlace = places[i].empty() ? 0 : sum / static_cast<double>(places[i].size());
    }
    std::set<int> blocks;
    std::set<int> opened;
    std::vector<std::set<int>> in(levels);
    for (const OrderedMount& mount : order) {
        if (!mount.level || *mount.level >= levels) continue;
        blocks.insert(mount.block);
        in[*mount.level].insert(mount.block);
        if (opened.insert(mount.block).second) ++costs.levels[*mount.level].first;
    }
    bool any = false;
    for (std::size_t i = 0; i < levels; ++i) {
        const LevelInOrder& level = costs.levels[i];
        if (level.mounts == 0) continue;
        if (!any || level.meanPlace < costs.levels[costs.earliest].meanPlace) costs.earliest = i;
        if (!any || level.meanPlace > costs.levels[costs.latest].meanPlace) costs.latest = i;
        any = true;
        const auto all = static_cast<int>(blocks.size());
        if (all > 1 && level.first == all) costs.alwaysFirst.push_back(i);
        const double reach = places[i].back() - places[i].front();
        if (levels > 1 && level.mounts > 1 && reach < static_cast<double>(level.mounts))
            costs.gathered.push_back(i);
        for (int block : blocks)
            if (!in[i].contains(block)) costs.missing.emplace_back(i, block);
    }
    if (any) costs.spread = costs.levels[costs.latest].meanPlace - costs.levels[costs.earliest].meanPlace;
    costs.driftInflation = worstInflation(places, costs.levels);
    return costs;
}

} // namespace ibuki
