// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What Bench tells of a mount's run, without widgets.

#include "core/domain/mount.h"
#include "core/domain/study.h"
#include "core/reduce/reduction.h"

#include <QStringList>
#include <vector>

namespace ibuki {

/// Over the steady window; "–" where there is none.
struct MetricLine {
    QString name;
    QString temperature; ///< °C
    QString difference;  ///< K over the room
    QString uncertainty; ///< K
};

struct RunLines {
    QString figure; ///< what the question compares, "≥ " before a bound one
    QString unit;
    QString title;
    QStringList conditions; ///< time, room, power, steadiness
    QStringList doubts;     ///< rejection and flags
    std::vector<MetricLine> metrics;
};

/// load: the run's, seen by the question's metric; nullptr when the log has none.
RunLines runLines(const Mount& mount, const Reduction& reduction, const LoadReduction* load,
                  const Question& question);

} // namespace ibuki
