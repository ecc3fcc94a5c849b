// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What Question's pages show of the plan, worked out once a change: the plan, its outlook or why there is
// none.

#include "app/session/session.h"
#include "core/plan/outlook.h"

namespace ibuki {

struct PlanFigures {
    Plan plan;
    WallClock clock;
    std::optional<Outlook> outlook;
    QString whyNot;
};

/// Of the session's question; `mounts` in the place of the plan's own while the user slides.
PlanFigures planFigures(const Session& session, std::optional<int> mounts = std::nullopt);

QString outlookLine(const Outlook& outlook, const Question& question);
QString sumsText(const std::vector<Money>& cost); ///< one a currency

} // namespace ibuki
