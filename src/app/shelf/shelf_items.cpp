// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_items.h"

#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/words.h"

#include <QRegularExpression>
#include <QStringList>
#include <algorithm>
#include <numeric>

namespace ibuki {
namespace {

void addCautions(ShelfItem& item, const Document& document, const CautionSubject& subject, Instant now) {
    for (const Caution& caution : cautionsFor(cautionFacts(document, subject, now))) {
        if (caution.rule->severity == CautionSeverity::info || caution.rule->handling) continue;
        ++item.cautions;
        item.gravest = std::max(item.gravest, caution.rule->severity);
    }
}

ShelfItem itemOf(const Document& document, const Material& material, const Lot* lot, const Site* site,
                 Instant now) {
    ShelfItem item;
    item.material = material.id;
    item.kind = material.kind;
    item.name = qtext(lot ? lot->name : material.name);
    QStringList words{qtext(material.name), item.name, sayTerm(word(material.kind)), qtext(material.note)};
    QStringList tip{item.name, sayTerm(word(material.kind))};
    if (lot) {
        item.lot = lot->id;
        const LotState state = lotState(document, *lot, now);
        item.share = state.share;
        if (state.left) item.left = say("%1 left").arg(contentText(*state.left, lot->contentUnit));
        item.ageDays = state.openDays ? state.openDays : state.ageDays;
        if (state.expired)
            item.age = say("past its date");
        else if (state.openDays)
            item.age = say("open %1").arg(spanText(*state.openDays));
        else if (state.ageDays)
            item.age = say("unopened, %1").arg(spanText(*state.ageDays));
        item.perApplication = costOf(document, *lot, site, now).perApplication;
        words << qtext(lot->supplier) << qtext(lot->storage) << sayTerm(word(lot->condition)) << item.age;
        tip << item.left << item.age;
        if (item.perApplication) tip << say("%1 per application").arg(moneyText(*item.perApplication));
    } else {
        item.left = say("no lot yet");
    }
    // The bench's own cautions belong to the bench: the shelf looks at material, lot and site.
    addCautions(item, document, {&material, lot, site, nullptr, nullptr}, now);
    if (item.cautions > 0) tip << sayMany("{count} caution", "{count} cautions", item.cautions);
    item.words = words.join(' ').toLower();
    item.tip = tip.filter(QRegularExpression(".")).join(", ");
    return item;
}

double rank(const ShelfItem& item, ShelfOrder order) {
    constexpr double last = 1e300;
    switch (order) {
    case ShelfOrder::left:
        return item.share.value_or(last);
    case ShelfOrder::age:
        return item.ageDays ? -*item.ageDays : last;
    case ShelfOrder::price:
        return item.comparablePrice.value_or(last);
    case ShelfOrder::cautions:
        return -100.0 * static_cast<int>(item.gravest) * (item.cautions > 0 ? 1 : 0) - item.cautions;
    case ShelfOrder::name:
        break;
    }
    return 0;
}

} // namespace

std::vector<ShelfItem> shelfItems(const Document& document, const Site* site, Instant now) {
    const std::string currency = mainCurrency(document);
    std::map<Id<Material>, std::vector<const Lot*>> lots;
    for (const auto& [id, lot] : document.all<Lot>()) lots[lot.material].push_back(&lot);
    std::vector<ShelfItem> items;
    for (const auto& [id, material] : document.all<Material>()) {
        if (!lots.contains(id)) items.push_back(itemOf(document, material, nullptr, site, now));
        for (const Lot* lot : lots[id]) items.push_back(itemOf(document, material, lot, site, now));
    }
    for (ShelfItem& item : items)
        if (item.perApplication)
            if (const auto converted = convert(*item.perApplication, currency, document))
                item.comparablePrice = converted->amount;
    return items;
}

std::vector<std::size_t> shelfSelection(const std::vector<ShelfItem>& items, const QString& search,
                                        std::optional<MaterialClass> kind, ShelfOrder order) {
    const QStringList wanted = search.toLower().split(' ', Qt::SkipEmptyParts);
    std::vector<std::size_t> chosen;
    for (std::size_t i = 0; i < items.size(); ++i) {
        if (kind && items[i].kind != *kind) continue;
        if (std::all_of(wanted.begin(), wanted.end(),
                        [&](const QString& word) { return items[i].words.contains(word); }))
            chosen.push_back(i);
    }
    std::stable_sort(chosen.begin(), chosen.end(), [&](std::size_t a, std::size_t b) {
        const double x = rank(items[a], order);
        const double y = rank(items[b], order);
        if (x != y) return x < y;
        return items[a].name.localeAwareCompare(items[b].name) < 0;
    });
    return chosen;
}

QRectF ShelfLayout::at(std::size_t index) const {
    const auto column = index % static_cast<std::size_t>(columns);
    const auto row = index / static_cast<std::size_t>(columns);
    return {static_cast<double>(column) * itemWidth, static_cast<double>(row) * rowHeight, itemWidth,
            rowHeight};
}

int ShelfLayout::indexAt(double x, double y) const {
    if (x < 0 || y < 0 || itemWidth <= 0 || rowHeight <= 0) return -1;
    const auto column = static_cast<std::size_t>(x / itemWidth);
    const auto row = static_cast<std::size_t>(y / rowHeight);
    const auto index = row * static_cast<std::size_t>(columns) + column;
    return column < static_cast<std::size_t>(columns) && index < count ? static_cast<int>(index) : -1;
}

ShelfLayout layoutShelf(std::size_t count, double width, double itemWidth, double rowHeight) {
    ShelfLayout layout;
    layout.count = count;
    layout.columns = std::max(1, static_cast<int>(width / itemWidth));
    layout.itemWidth = width / layout.columns;
    layout.rowHeight = rowHeight;
    const auto columns = static_cast<std::size_t>(layout.columns);
    const std::size_t rows = (count + columns - 1) / columns;
    layout.height = static_cast<double>(rows) * rowHeight;
    return layout;
}

} // namespace ibuki
