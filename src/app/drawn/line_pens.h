// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Lines of several groups in one plot: told apart by colour and by dash, and named at their end.

#include <QPen>

class QCustomPlot;

namespace ibuki {

QPen linePen(std::size_t place);

/// Right of a point of the plot.
void nameLine(QCustomPlot& plot, const QString& name, const QColor& colour, double x, double y);

/// From now on, names that would cover each other are moved apart whenever the plot is laid out.
void keepNamesApart(QCustomPlot& plot);

/// Widens the horizontal axis behind its last point, so that names have room there.
void leaveRoomForNames(QCustomPlot& plot);

} // namespace ibuki
