// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/trace_plot.h"

#include "app/shell/theme.h"
#include "app/shell/widgets.h"

#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

QVector<double> vectorOf(const std::vector<double>& values) { return {values.begin(), values.end()}; }

QVector<double> minutesOf(const std::vector<double>& seconds) {
    QVector<double> minutes;
    minutes.reserve(static_cast<int>(seconds.size()));
    for (double s : seconds) minutes << s / 60;
    return minutes;
}

void styleAxis(QCPAxis* axis, const Colours& c) {
    axis->setBasePen(QPen(c.line));
    axis->setTickPen(QPen(c.line));
    axis->setSubTickPen(Qt::NoPen);
    axis->setTickLabelColor(c.quiet);
    axis->setLabelColor(c.quiet);
    axis->setTickLabelFont(textFont(0.85));
    axis->setLabelFont(textFont(0.9));
    axis->grid()->setPen(QPen(c.line, 1, Qt::DotLine));
}

} // namespace

TracePlot::TracePlot(QWidget* parent) : QWidget(parent), plot_(new QCustomPlot) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(plot_);
    setAccessibleName("Trace of the run");
    plot_->setFocusPolicy(Qt::NoFocus);
    plot_->setMinimumHeight(150);
    plot_->xAxis->setLabel("minutes");
    plot_->yAxis->setLabel("°C");
    plot_->yAxis2->setLabel("W");
    plot_->yAxis2->setVisible(true);
    plot_->yAxis2->grid()->setVisible(false);
    plot_->legend->setFillOrder(QCPLegend::foColumnsFirst);
    plot_->plotLayout()->addElement(1, 0, plot_->legend);
    plot_->plotLayout()->setRowStretchFactor(1, 0.001);
    plot_->legend->setMargins(QMargins(0, 0, 0, 0));
    restyle();
}

void TracePlot::restyle() {
    const Colours& c = colours();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis, plot_->yAxis2}) styleAxis(axis, c);
    plot_->legend->setBrush(QBrush(c.sheet));
    plot_->legend->setBorderPen(Qt::NoPen);
    plot_->legend->setTextColor(c.ink);
    plot_->legend->setFont(textFont(0.85));
    plot_->replot();
}

void TracePlot::clear() {
    plot_->clearItems();
    plot_->clearGraphs();
    plot_->legend->setVisible(false);
    plot_->replot();
}

void TracePlot::shade(double from, double to, const QColor& colour) {
    auto* band = new QCPItemRect(plot_);
    band->setPen(Qt::NoPen);
    band->setBrush(colour);
    band->setLayer("background");
    for (QCPItemPosition* position : {band->topLeft, band->bottomRight}) {
        position->setTypeX(QCPItemPosition::ptPlotCoords);
        position->setTypeY(QCPItemPosition::ptAxisRectRatio);
    }
    band->topLeft->setCoords(from / 60, 0);
    band->bottomRight->setCoords(to / 60, 1);
}

void TracePlot::show(const Trace& trace, const Reduction& reduction, Metric metric) {
    plot_->clearItems();
    plot_->clearGraphs();
    const Colours& c = colours();
    const auto time = minutesOf(trace.timeS);
    const auto add = [&](const std::vector<double>& values, const QString& name, const QPen& pen,
                         QCPAxis* axis) {
        if (values.empty()) return;
        QCPGraph* graph = plot_->addGraph(plot_->xAxis, axis);
        graph->setData(time, vectorOf(values), true);
        graph->setPen(pen);
        graph->setName(name);
        graph->setAdaptiveSampling(true);
    };
    if (const LoadReduction* load = reduction.main()) {
        QColor loadColour = c.band;
        loadColour.setAlpha(110);
        for (const Phase& phase : load->phases)
            if (phase.name == "load") shade(phase.startS, phase.endS, loadColour);
        QColor windowColour = c.hotWash;
        windowColour.setAlpha(110);
        if (load->window) shade(load->window->startS, load->window->endS, windowColour);
    }
    const Channel* power =
        firstChannel(trace, isGraphicsMetric(metric) ? Role::gpuPower : Role::packagePower);
    if (power) add(power->values, "power", QPen(c.quiet, 1, Qt::DotLine), plot_->yAxis2);
    plot_->yAxis2->setVisible(power != nullptr);
    add(metricSeries(trace, chipChannels(trace, {}), metric), qtext(metricTitle(metric)), QPen(c.hot, 1.6),
        plot_->yAxis);
    if (const Channel* room = firstChannel(trace, Role::ambient))
        add(room->values, "room", QPen(c.cold, 1.6), plot_->yAxis);
    plot_->rescaleAxes();
    for (QCPAxis* axis : {plot_->yAxis, plot_->yAxis2}) {
        const QCPRange range = axis->range();
        axis->setRange(range.lower - 0.05 * range.size(), range.upper + 0.12 * range.size());
    }
    plot_->legend->setVisible(true);
    plot_->replot();
}

} // namespace ibuki
