// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What Bench tells of a mount that is still to be made, or to be come back to, without widgets.

#include "core/domain/document.h"
#include "core/domain/plan.h"

#include <QStringList>

namespace ibuki {

struct PlannedLines {
    QString title;
    QString manualWork; ///< tube, dose, pattern, torque: what the hands need to know
    QStringList when;
    QStringList steps;
    QStringList cautions;
};

PlannedLines slotLines(const Document& document, const Slot& slot, Instant now);
PlannedLines followUpLines(const Document& document, const FollowUp& followUp);

} // namespace ibuki
