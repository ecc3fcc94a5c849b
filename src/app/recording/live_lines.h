// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/live_run.h"

#include <QStringList>

namespace ibuki {

/// What the run that is under way says, in words that are read from two metres away.
struct LiveLines {
    QString figure; ///< "41.3"
    QString unit;   ///< "K over room"
    QString step;   ///< "soak, sustained 180 W"
    QString until;  ///< "steady in about 6 min (4 to 9)"
    QString next;   ///< what comes then, or what Space does
    QStringList doubts;
    double share = 0;   ///< of the step, 0 to 1
    bool isHot = false; ///< the watch stopped the load
};

struct StatusLightLine {
    QString name;
    QString value; ///< with its unit; empty: not read
    StatusLight statusLight = StatusLight::dark;
};

LiveLines liveLines(const LiveRun& run);
std::vector<StatusLightLine> statusLightLines(const LiveRun& run);

/// "3:20", "1:04:10".
QString clockText(double seconds);
QString markLine(const LiveMark& mark);

} // namespace ibuki
