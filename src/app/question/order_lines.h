// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The order of the mounts as the window tells it, without widgets: as it stands on the tape, or as drawn, and
// what it costs.

#include "app/question/plan_figures.h"

#include <QStringList>
#include <vector>

namespace ibuki {

/// What an order costs, sentence by sentence; names are the design's cells.
QStringList orderCostSentences(const OrderCosts& costs, const std::vector<std::string>& names);

/// What the bench's own scatter says of extending (Stein's second stage), and that it is a look.
QString extensionHint(const Document& document, const Question& question, const PlanFigures& figures);

} // namespace ibuki
