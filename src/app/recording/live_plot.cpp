// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/live_plot.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/say.h"
#include "app/session/qtext.h"

#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>
#include <qcustomplot.h>

namespace ibuki {
namespace {

bool isDrawn(const RecordedChannel& channel) { return isTemperature(channel.channel.role); }

} // namespace

LivePlot::LivePlot(QWidget* parent) : QWidget(parent), plot_(new QCustomPlot) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(plot_);
    setAccessibleName(say("Trace of the run"));
    setFocusPolicy(Qt::StrongFocus);
    plot_->setFocusPolicy(Qt::NoFocus);
    plot_->setMinimumHeight(110);
    makePlotQuick(*plot_);
    plot_->setInteraction(QCP::iRangeDrag);
    plot_->axisRect()->setRangeDrag(Qt::Horizontal);
    connect(plot_, &QCustomPlot::mousePress, this, [this] { follows_ = false; });
    connect(plot_, &QCustomPlot::mouseWheel, this, [this] { follows_ = false; });
    restyle();
}

void LivePlot::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::FontChange) restyle();
}

void LivePlot::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    const int labels = plot_->height() / (3 * fontMetrics().height());
    plot_->yAxis->ticker()->setTickCount(std::clamp(labels, 2, 6));
}

void LivePlot::restyle() {
    plot_->setBackground(QBrush(colours().sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    shown_ = nullptr; // pens anew with the next rows
    plot_->replot();
}

void LivePlot::begin(const LiveRun& run, bool all) {
    shown_ = &run;
    all_ = all;
    follows_ = true;
    ghosts_ = run.earlier();
    plot_->clearGraphs();
    live_.clear();
    const Colours& c = colours();
    if (!all && ghosts_)
        for (const EarlierRise& earlier : *ghosts_) {
            QCPGraph* ghost = plot_->addGraph();
            QColor colour = earlier.sameLevel ? c.quiet : c.line;
            ghost->setPen(
                QPen(colour, earlier.sameLevel ? 1.6 : 1, earlier.rejected ? Qt::DashLine : Qt::SolidLine));
            QVector<double> minutes;
            QVector<double> rises;
            for (const RisePoint& point : earlier.curve.points) {
                minutes << point.timeS / 60;
                rises << point.riseK;
            }
            ghost->setData(minutes, rises, true);
        }
    if (!all) {
        live_.push_back(plot_->addGraph());
        live_.back()->setPen(QPen(c.hot, 2.2));
        return;
    }
    for (const RecordedChannel& channel : run.channels()) {
        if (!isDrawn(channel)) continue;
        live_.push_back(plot_->addGraph());
        const Role role = channel.channel.role;
        live_.back()->setPen(QPen(role == Role::ambient || role == Role::coolant ? c.cold : c.hot, 1));
    }
}

void LivePlot::fill(QCPGraph* graph, const StretchMeans& curve, double zeroS) const {
    QVector<double> minutes;
    QVector<double> values;
    for (const MeanStretch& stretch : curve.stretches()) {
        minutes << (stretch.beginS - zeroS) / 60;
        values << stretch.lowest;
        if (stretch.highest > stretch.lowest) {
            minutes << (stretch.beginS - zeroS) / 60;
            values << stretch.highest;
        }
    }
    graph->setData(minutes, values, true);
}

void LivePlot::show(const LiveRun& run, bool all) {
    std::size_t wanted = 1;
    if (all) {
        wanted = 0;
        for (const RecordedChannel& channel : run.channels()) wanted += isDrawn(channel) ? 1 : 0;
    }
    if (shown_ != &run || all_ != all || wanted != live_.size() || ghosts_ != run.earlier()) begin(run, all);
    const double zeroS = run.loadBeganS().value_or(0);
    if (!all) {
        fill(live_.front(), run.rise(), zeroS);
    } else {
        std::size_t next = 0;
        for (std::size_t i = 0; i < run.channels().size(); ++i)
            if (isDrawn(run.channels()[i])) fill(live_[next++], run.curve(i), zeroS);
    }
    if (follows_) fit();
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

void LivePlot::fit() {
    plot_->rescaleAxes();
    const QCPRange values = plot_->yAxis->range();
    const double least = std::max(values.size(), 2.0);
    plot_->yAxis->setRange(values.center() - 0.55 * least, values.center() + 0.55 * least);
    if (plot_->xAxis->range().size() < 1)
        plot_->xAxis->setRange(plot_->xAxis->range().lower, plot_->xAxis->range().lower + 1);
}

void LivePlot::zoom(double factor) {
    follows_ = false;
    zoomPlot(*plot_, factor, plot_->xAxis->range().upper); // what comes stays in view
}

void LivePlot::keyPressEvent(QKeyEvent* event) {
    const double step = plot_->xAxis->range().size() / 5;
    switch (event->key()) {
    case Qt::Key_Plus:
        zoom(0.5);
        return;
    case Qt::Key_Minus:
        zoom(2);
        return;
    case Qt::Key_0:
        follows_ = true;
        fit();
        plot_->replot();
        return;
    case Qt::Key_Left:
    case Qt::Key_Right:
        follows_ = false;
        plot_->xAxis->moveRange(event->key() == Qt::Key_Left ? -step : step);
        plot_->replot();
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

} // namespace ibuki
