// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The look that all plots share.

class QCPAxis;
class QCustomPlot;

namespace ibuki {

/// Axis, ticks, labels and grid in the colours and fonts in force.
void stylePlotAxis(QCPAxis* axis);

/// Lines without smoothing: for curves of so many points that nobody sees it.
void drawQuickly(QCustomPlot& plot, bool quickly);

/// A frame while panning is what it draws for: lines without smoothing; the wheel makes it closer and wider.
void makePlotQuick(QCustomPlot& plot);
/// Closer (factor below 1) or wider; anchor: what stays where it is, of the axis along.
void zoomPlot(QCustomPlot& plot, double factor, double anchor);

} // namespace ibuki
