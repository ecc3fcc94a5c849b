// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What is left on the shelf, in money.

#include "core/shelf/shelf.h"

namespace ibuki {

/// The currency that most lots are priced in; empty when none is.
std::string mainCurrency(const Document& document);

struct ShelfWorth {
    std::vector<Money> byCurrency; ///< of lots whose price and rest are known
    std::optional<Money> total;    ///< in the shelf's main currency; nothing when a rate is missing
};

ShelfWorth worthLeft(const Document& document, Instant now);

} // namespace ibuki
