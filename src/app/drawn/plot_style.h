// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The look that all plots share.

class QCPAxis;

namespace ibuki {

/// Axis, ticks, labels and grid in the colours and fonts in force.
void stylePlotAxis(QCPAxis* axis);

} // namespace ibuki
