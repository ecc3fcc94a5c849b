// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What Question's pages show of the plan, worked out once a change: the plan, its analysis or why there is
// none.

#include "core/domain/document.h"
#include "core/plan/power_analysis.h"

#include <QString>

namespace ibuki {

struct PlanFigures {
    Plan plan;
    WallClock clock;
    std::optional<PowerAnalysis> analysis;
    QString reason;
};

/// Of the question, which may be nullptr; `mounts` in the place of the plan's own while the user slides.
PlanFigures planFigures(const Document& document, const Question* question, Instant now,
                        std::optional<int> mounts = std::nullopt);

QString powerLine(const PowerAnalysis& analysis, const Question& question);
QString sumsText(const std::vector<Money>& cost); ///< one a currency

} // namespace ibuki
