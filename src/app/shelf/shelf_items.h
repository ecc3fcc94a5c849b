// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What stands on the drawn shelf, as plain values: one thing a lot, and one for each material without a lot.
// Finding, sorting and placing them needs no window.

#include "app/say.h"
#include "app/session/amount_text.h"
#include "core/caution/caution.h"
#include "core/domain/bench.h"
#include "core/shelf/shelf.h"
#include "core/shelf/shelf_worth.h"

#include <QRectF>
#include <QString>
#include <vector>

namespace ibuki {

struct ShelfItem {
    Id<Material> material;
    std::optional<Id<Lot>> lot; ///< nothing: the material has none yet
    MaterialClass kind = MaterialClass::paste;
    QString name;                ///< of the lot, or of the material without one
    QString words;               ///< everything a search looks through, lower case
    std::optional<double> share; ///< left of what was bought
    QString left;                ///< "2.1 g left", "look-alike unopened"
    QString age;                 ///< "open 2 weeks"
    std::optional<double> ageDays;
    std::optional<Money> perApplication;
    std::optional<double> comparablePrice; ///< the same in the shelf's main currency, where a rate is known
    int cautions = 0;                      ///< that apply or ask, handling aside
    CautionSeverity gravest = CautionSeverity::info;
    QString tip;
};

/// Everything on the shelf, priced and checked for one site (may be nullptr).
std::vector<ShelfItem> shelfItems(const Document& document, const Site* site, Instant now);

enum class ShelfOrder { name, left, age, price, cautions };
inline constexpr std::array shelfOrderNames{words::mark("by name"), words::mark("least left first"),
                                            words::mark("oldest first"), words::mark("cheapest first"),
                                            words::mark("cautions first")};

/// Indices of the items that contain every word of `search` and are of the class, in order.
std::vector<std::size_t> shelfSelection(const std::vector<ShelfItem>& items, const QString& search,
                                        std::optional<MaterialClass> kind, ShelfOrder order);

struct ShelfLayout {
    int columns = 1;
    double itemWidth = 0;
    double rowHeight = 0;
    double height = 0; ///< of all boards
    std::size_t count = 0;

    QRectF at(std::size_t index) const;
    int indexAt(double x, double y) const; ///< −1: none
};

ShelfLayout layoutShelf(std::size_t count, double width, double itemWidth, double rowHeight);

} // namespace ibuki
