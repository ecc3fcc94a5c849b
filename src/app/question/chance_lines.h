// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a plan's chances and costs say, without widgets.

#include "app/question/plan_figures.h"

#include <QStringList>
#include <string_view>
#include <vector>

namespace ibuki {

struct ChanceLines {
    QString title;
    std::vector<std::pair<QString, QString>> figures; ///< name and value
    QStringList helps;                                ///< notes, and what would help where it is too little
};

QString percent(double share); ///< "51 %"

/// Of figures that have an analysis.
ChanceLines chanceLines(const Document& document, const Question& question, const PlanFigures& figures);

} // namespace ibuki
