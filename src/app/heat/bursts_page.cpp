// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/bursts_page.h"

#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/base/input_error.h"
#include "store/paper/heat_csv.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QHBoxLayout>
#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

QDoubleSpinBox* spin(const QString& name, const QString& unit, double lo, double hi, double value) {
    auto* box = new QDoubleSpinBox;
    box->setAccessibleName(name);
    box->setObjectName(name);
    box->setRange(lo, hi);
    box->setDecimals(0);
    box->setValue(value);
    box->setSuffix(" " + unit);
    return box;
}

QString timeText(double seconds) {
    return seconds < 120 ? say("%1 s").arg(seconds, 0, 'f', 0) : say("%1 min").arg(seconds / 60, 0, 'f', 1);
}

/// How long a head start lasts, and what is left of it for bursts.
QString burstsText(const BurstCurves& curves, const BurstPattern& pattern, double ambientC) {
    QString text = say("A long load at %1 W ends %2 K over room.")
                       .arg(pattern.highW, 0, 'f', 0)
                       .arg(curves.longEndC - ambientC, 0, 'f', 1);
    text += " "
            + (curves.withinKelvinS
                   ? say("It is a kelvin below that after %1: then the head start of the cooler is used up.")
                         .arg(timeText(*curves.withinKelvinS))
                   : say("In this time it does not come within a kelvin of that: the cooler still has a head "
                         "start."));
    return text + " "
           + say("The first burst peaks at %1 K, the last at %2 K: %3 K below the long load's end. What a "
                 "burst "
                 "shows of a cooler is its mass; what it shows of a joint is the same as a long load's.")
                 .arg(curves.firstPeakC - ambientC, 0, 'f', 1)
                 .arg(curves.lastPeakC - ambientC, 0, 'f', 1)
                 .arg(curves.longEndC - curves.lastPeakC, 0, 'f', 1);
}

} // namespace

BurstsPage::BurstsPage(QWidget* parent)
    : ExportedPage(say("Bursts"), parent),
      on_(spin(say("Burst"), "s", 1, 3'600, 30)),
      off_(spin(say("Pause"), "s", 0, 3'600, 60)),
      low_(spin(say("Power in the pause"), "W", 0, 400, 20)),
      minutes_(spin(say("Shown"), "min", 1, 240, 30)),
      cooler_(new QComboBox),
      reported_(new QLabel),
      plot_(new QCustomPlot) {
    explain(this, Topic::bursts);
    cooler_->setAccessibleName(say("What the cooler stores"));
    for (const auto& [name, mass] :
         {std::pair{say("fins in air"), CoolerMass::air}, std::pair{say("closed loop"), CoolerMass::loop},
          std::pair{say("large loop"), CoolerMass::largeLoop}})
        cooler_->addItem(say("%1, %2 J/K").arg(name).arg(capacityJPerK(mass)), static_cast<int>(mass));
    reported_->setWordWrap(true);
    reported_->setObjectName("Bursts told");
    plot_->setAccessibleName(say("Chip over time"));
    keepNamesApart(*plot_);
    auto* row = new QHBoxLayout;
    for (QDoubleSpinBox* box : {on_, off_, low_, minutes_}) {
        row->addWidget(new QLabel(box->accessibleName()));
        row->addWidget(box);
        connect(box, &QDoubleSpinBox::valueChanged, this, &BurstsPage::work);
    }
    row->addWidget(cooler_);
    row->addStretch(1);
    auto* inside = new QVBoxLayout(this);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->addLayout(row);
    inside->addWidget(reported_);
    inside->addWidget(plot_, 1);
    inside->addWidget(quietLabel(
        say("Power, joint, lid and cooler are those of the page Stack, with its sliders as they stand.")));
    connect(cooler_, &QComboBox::currentIndexChanged, this, &BurstsPage::work);
}

BurstPattern BurstsPage::pattern() const {
    return {on_->value(), off_->value(), path_->powerW, low_->value(), 60 * minutes_->value()};
}

void BurstsPage::show(const HeatPath& path) {
    path_ = path;
    stale_ = true;
    if (isVisible()) work();
}

void BurstsPage::showEvent(QShowEvent* event) {
    ExportedPage::showEvent(event);
    if (stale_) work();
}

void BurstsPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange) draw();
}

void BurstsPage::work() {
    if (!path_) return;
    stale_ = false;
    try {
        curves_ = burstCurves(*path_, capacityJPerK(static_cast<CoolerMass>(cooler_->currentData().toInt())),
                              pattern());
        reported_->setText(burstsText(*curves_, pattern(), path_->ambientC));
    } catch (const InputError& error) {
        curves_.reset();
        reported_->setText(saySentence(error));
    }
    draw();
}

void BurstsPage::draw() {
    plot_->clearGraphs();
    plot_->clearItems();
    plot_->setBackground(QBrush(colours().sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->xAxis->setLabel(say("min"));
    plot_->yAxis->setLabel("°C");
    if (curves_) {
        QVector<double> minutes;
        for (double time : curves_->timeS) minutes << time / 60;
        const auto add = [&](const std::vector<double>& celsius, std::size_t place, const QString& name) {
            QCPGraph* graph = plot_->addGraph();
            graph->setPen(linePen(place));
            graph->setData(minutes, QVector<double>(celsius.begin(), celsius.end()), true);
            nameLine(*plot_, name, linePen(place).color(), minutes.last(), celsius.back());
        };
        add(curves_->longC, 0, say("long load"));
        add(curves_->burstsC, 1, say("bursts"));
        plot_->rescaleAxes();
        plot_->yAxis->scaleRange(1.1);
        plot_->xAxis->setRangeUpper(1.15 * minutes.last()); // room for the names
    }
    plot_->replot();
}

std::string BurstsPage::csv() const { return curves_ ? burstsCsv(*curves_) : std::string(); }

QWidget* BurstsPage::picture() { return plot_; }

} // namespace ibuki
