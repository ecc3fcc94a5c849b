// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Amounts, spans and prices in the window's words.

#include "core/caution/blocking_caution.h"
#include "core/setup/follow_ups.h"
#include "core/shelf/shelf.h"

#include <QString>

namespace ibuki {

/// "3 days", "5 weeks", "4 months", "2 years"
QString spanText(double days);
/// "25 min", "8 h", "6 months"
QString durationText(double minutes);
QString dayText(Instant instant);     ///< Tue 2031-03-04
QString dayTimeText(Instant instant); ///< Tue 2031-03-04 18:30
QString moneyText(const Money& money);
/// "2.1 g", "1330 mm²", "1.6 sheets"
QString contentText(double amount, ContentUnit unit);

/// "2 mounts want a look this week, 1 is overdue"; empty: none does.
QString wantedText(const DueCount& count);

/// "Slate 25 is short: 3 planned mounts need 3468 mm², 2900 mm² is left."
QString shortageText(const Document& document, const Shortage& shortage);

} // namespace ibuki
