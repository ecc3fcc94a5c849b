// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/plot_style.h"

#include "app/drawn/theme.h"

#include <qcustomplot.h>

namespace ibuki {

void stylePlotAxis(QCPAxis* axis) {
    const Colours& c = colours();
    axis->setBasePen(QPen(c.line));
    axis->setTickPen(QPen(c.line));
    axis->setSubTickPen(Qt::NoPen);
    axis->setTickLabelColor(c.quiet);
    axis->setLabelColor(c.quiet);
    axis->setTickLabelFont(textFont(0.85));
    axis->setLabelFont(textFont(0.9));
    axis->grid()->setPen(QPen(c.line, 1, Qt::DotLine));
}

void drawQuickly(QCustomPlot& plot, bool quickly) {
    plot.setPlottingHint(QCP::phFastPolylines, quickly);
    plot.setNotAntialiasedElement(QCP::aePlottables, quickly);
}

void makePlotQuick(QCustomPlot& plot) {
    drawQuickly(plot, true);
    plot.setInteraction(QCP::iRangeZoom);
    plot.axisRect()->setRangeZoom(Qt::Horizontal);
}

void zoomPlot(QCustomPlot& plot, double factor, double anchor) {
    plot.xAxis->scaleRange(factor, anchor);
    plot.replot();
}

} // namespace ibuki
