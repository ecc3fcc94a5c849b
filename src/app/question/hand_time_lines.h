// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The evenings of a plan and the minutes of hands they are made of, as the window tells them, without
// widgets.

#include "app/question/plan_figures.h"

#include <QStringList>
#include <vector>

namespace ibuki {

struct HandTimeLine {
    MaterialClass material = MaterialClass::paste;
    StepKind step = StepKind::apply;
    QString name;
    QString minutes;
    QString source; ///< where the minutes come from
};

/// The steps of hands for each class of the question's materials.
std::vector<HandTimeLine> handTimeLines(const Document& document, const Question& question, Id<Bench> bench);

/// How long it takes from one recording to the next on this bench.
QString turnaroundText(const Document& document, Id<Bench> bench);

} // namespace ibuki
