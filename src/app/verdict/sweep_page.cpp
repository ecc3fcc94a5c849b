// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/sweep_page.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/amounts.h"
#include "app/verdict/line_pens.h"
#include "words/words.h"

#include <QVBoxLayout>
#include <algorithm>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr int mostTold = 6;

QString slopeText(const SweepLine& line) {
    if (!line.slopeInterval) return say("%1: %2 K/W").arg(qtext(line.group.name)).arg(line.slope, 0, 'f', 4);
    return say("%1: %2 K/W (%3 to %4)")
        .arg(qtext(line.group.name))
        .arg(line.slope, 0, 'f', 4)
        .arg(line.slopeInterval->lo, 0, 'f', 4)
        .arg(line.slopeInterval->hi, 0, 'f', 4);
}

QStringList sentences(const PowerSweep& sweep) {
    if (!sweep.lines) return {qtext(words::complaint(*sweep.whyNot))};
    const Lines& lines = *sweep.lines;
    QStringList told;
    QStringList slopes;
    for (const SweepLine& line : lines.lines) slopes << slopeText(line);
    told << slopes.mid(0, mostTold).join("   ");
    if (lines.equalSlopes)
        told << say("Whether the lines run alike: F(%1, %2) = %3, p %4")
                    .arg(lines.equalSlopes->df1)
                    .arg(lines.equalSlopes->df2)
                    .arg(lines.equalSlopes->f, 0, 'f', 2)
                    .arg(lines.equalSlopes->p, 0, 'g', 2);
    for (const SweepPair& pair : lines.pairs) {
        if (!pair.crossover || told.size() > mostTold) continue;
        const QString a = qtext(lines.lines[pair.a].group.name);
        const QString b = qtext(lines.lines[pair.b].group.name);
        told
            << (pair.crossoverInterval
                    ? say("%1 and %2 change places at %3 W (%4 to %5 W).")
                          .arg(a, b)
                          .arg(*pair.crossover, 0, 'f', 0)
                          .arg(pair.crossoverInterval->lo, 0, 'f', 0)
                          .arg(pair.crossoverInterval->hi, 0, 'f', 0)
                    : say("Where %1 and %2 would change places cannot be told from these mounts.").arg(a, b));
    }
    for (const Flag& flag : lines.flags) told << qtext(words::text(flag.message)) + ".";
    return told;
}

} // namespace

SweepPage::SweepPage(QWidget* parent) : QWidget(parent), plot_(new QCustomPlot), told_(new QLabel) {
    setAccessibleName(say("Over power"));
    explain(this, Topic::sweep);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    told_->setWordWrap(true);
    told_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    told_->setObjectName("Sweep told");
    layout->addWidget(plot_, 1);
    layout->addWidget(told_);
}

void SweepPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange) draw();
}

void SweepPage::show(const PowerSweep& sweep) {
    sweep_ = sweep;
    told_->setText(sentences(sweep).join("\n"));
    plot_->setVisible(sweep.lines.has_value());
    draw();
}

void SweepPage::draw() {
    plot_->clearPlottables();
    plot_->clearItems();
    if (!sweep_.lines) return;
    plot_->setBackground(QBrush(colours().sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->xAxis->setLabel(QStringLiteral("W"));
    plot_->yAxis->setLabel(QStringLiteral("K"));
    const Interval& swept = sweep_.lines->swept;
    for (std::size_t i = 0; i < sweep_.lines->lines.size(); ++i) {
        const SweepLine& line = sweep_.lines->lines[i];
        const QPen pen = linePen(i);
        QVector<double> x;
        QVector<double> y;
        for (const SweepPoint& point : sweep_.points) {
            if (point.group.id != line.group.id) continue;
            x << point.x;
            y << point.y;
        }
        QCPGraph* marks = plot_->addGraph();
        marks->setData(x, y);
        marks->setPen(QPen(pen.color(), 1.3));
        marks->setLineStyle(QCPGraph::lsNone);
        marks->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, 7));
        QCPGraph* along = plot_->addGraph();
        along->setData({swept.lo, swept.hi},
                       {line.intercept + line.slope * swept.lo, line.intercept + line.slope * swept.hi},
                       true);
        along->setPen(pen);
        nameLine(*plot_, qtext(line.group.name), pen.color(), swept.hi,
                 line.intercept + line.slope * swept.hi);
    }
    plot_->rescaleAxes();
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) axis->scaleRange(1.12);
    plot_->xAxis->setRangeUpper(swept.hi + 0.22 * (swept.hi - swept.lo)); // room for the names
    plot_->replot();
}

} // namespace ibuki
