// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Amounts as the verdict's pages write them.

#include "app/session/qtext.h"
#include "store/paper/sentences.h"

namespace ibuki {

inline QString signedAmount(double value, const std::string& unit, std::optional<int> decimals = {}) {
    return qtext(signedAmountText(value, unit, decimals));
}

} // namespace ibuki
