// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What one thing on the shelf says, holds and costs, or two beside each other, without widgets.

#include "core/domain/bench.h"
#include "core/domain/document.h"
#include "core/domain/material.h"

#include <QStringList>
#include <vector>

namespace ibuki {

struct ShelfThing {
    Id<Material> material;
    std::optional<Id<Lot>> lot;
};

struct FigureLine {
    QString name;
    QStringList values; ///< one a thing; "–" where nothing is known
    bool operator==(const FigureLine&) const = default;
};

struct FigureTable {
    QStringList heads; ///< names, when there is more than one thing
    std::vector<FigureLine> lines;
    bool lacksSite = false; ///< so that nothing is told of one application
    bool operator==(const FigureTable&) const = default;
};

/// site may be nullptr. Claims and class defaults are marked.
FigureTable figureTable(const Document& document, const std::vector<ShelfThing>& things, const Site* site,
                        Instant now);

} // namespace ibuki
