// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What the page of load steps tells.

#include "core/heat/transient_study.h"

#include <QStringList>

namespace ibuki {

/// What such logs can see and what they cannot, what was left out, how sure a start is.
QStringList transientLines(const TransientStudy& study, std::optional<double> declaredS);

/// A pair as the table shows it: its names, Z at the time with its interval, in kelvin, steady, the curves.
QStringList transientRow(const TransientStudy& study, const TransientPair& pair);
QStringList transientHeads(const TransientStudy& study);

} // namespace ibuki
