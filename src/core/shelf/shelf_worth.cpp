// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/shelf_worth.h"

#include "core/domain/material.h"

#include <map>

namespace ibuki {

std::string mainCurrency(const Document& document) {
    std::map<std::string, int> counts;
    for (const auto& [id, lot] : document.all<Lot>())
        if (!lot.currency.empty()) ++counts[lot.currency];
    const auto most = std::max_element(counts.begin(), counts.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == counts.end() ? std::string() : most->first;
}

ShelfWorth worthLeft(const Document& document, Instant now) {
    std::map<std::string, double> totals;
    for (const auto& [id, lot] : document.all<Lot>()) {
        const LotCost cost = costOf(document, lot, nullptr, now);
        const auto left = lotState(document, lot, now).left;
        if (cost.perUnit && left) totals[lot.currency] += cost.perUnit->amount * *left;
    }
    ShelfWorth worth;
    for (const auto& [currency, amount] : totals) worth.byCurrency.push_back({amount, currency});
    worth.total = sum(worth.byCurrency, mainCurrency(document), document);
    return worth;
}

} // namespace ibuki
