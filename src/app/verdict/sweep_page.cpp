// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/sweep_page.h"

#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/amounts.h"
#include "store/paper/verdict_csv.h"
#include "words/words.h"

#include <QVBoxLayout>
#include <algorithm>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr int mostReported = 6;
constexpr int curveSteps = 120;

/// Where the recommended setting stands.
void markSetting(QCustomPlot& plot, double at, const QColor& colour) {
    auto* line = new QCPItemStraightLine(&plot);
    line->point1->setCoords(at, 0);
    line->point2->setCoords(at, 1);
    line->setPen(QPen(colour, 1, Qt::DashDotLine));
}

QString slopeText(const SweepLine& line) {
    if (!line.slopeInterval) return say("%1: %2 K/W").arg(qtext(line.group.name)).arg(line.slope, 0, 'f', 4);
    return say("%1: %2 K/W (%3 to %4)")
        .arg(qtext(line.group.name))
        .arg(line.slope, 0, 'f', 4)
        .arg(line.slopeInterval->lo, 0, 'f', 4)
        .arg(line.slopeInterval->hi, 0, 'f', 4);
}

QString settingText(double value, const std::string& unit) {
    return QString::number(value, 'f', 2) + " " + qtext(unit);
}

/// From which setting on it is good enough, and what to use.
QString responseText(const SweepResponse& response, const std::string& xUnit, const std::string& unit,
                     double margin) {
    const QString name = qtext(response.group.name);
    if (response.model == ResponseModel::constant || !response.smallest)
        return say("%1: nothing is gained over the settings that were tried.").arg(name);
    QString text = say("%1: within %2 of the best from %3 on")
                       .arg(name, qtext(amountText(margin, unit)), settingText(*response.smallest, xUnit));
    if (response.smallestInterval)
        text += " "
                + say("(%1 to %2)")
                      .arg(settingText(response.smallestInterval->lo, xUnit),
                           settingText(response.smallestInterval->hi, xUnit));
    return text
           + (response.recommended ? say("; use %1.").arg(settingText(*response.recommended, xUnit))
                                   : QStringLiteral("."));
}

QStringList sentences(const SettingSweep& sweep, const std::string& xUnit, const std::string& unit,
                      double margin) {
    if (!sweep.responses) return {qtext(words::complaint(*sweep.reason))};
    QStringList reported;
    for (const SweepResponse& response : sweep.responses->responses)
        reported << responseText(response, xUnit, unit, margin);
    for (const Flag& flag : sweep.responses->flags) reported << qtext(words::text(flag.message)) + ".";
    return reported;
}

QStringList sentences(const PowerSweep& sweep) {
    if (!sweep.lines) return {qtext(words::complaint(*sweep.reason))};
    const Lines& lines = *sweep.lines;
    QStringList reported;
    QStringList slopes;
    for (const SweepLine& line : lines.lines) slopes << slopeText(line);
    reported << slopes.mid(0, mostReported).join("   ");
    if (lines.equalSlopes)
        reported << say("Whether the lines run alike: F(%1, %2) = %3, p %4")
                        .arg(lines.equalSlopes->df1)
                        .arg(lines.equalSlopes->df2)
                        .arg(lines.equalSlopes->f, 0, 'f', 2)
                        .arg(lines.equalSlopes->p, 0, 'g', 2);
    for (const SweepPair& pair : lines.pairs) {
        if (!pair.crossover || reported.size() > mostReported) continue;
        const QString a = qtext(lines.lines[pair.a].group.name);
        const QString b = qtext(lines.lines[pair.b].group.name);
        reported
            << (pair.crossoverInterval
                    ? say("%1 and %2 change places at %3 W (%4 to %5 W).")
                          .arg(a, b)
                          .arg(*pair.crossover, 0, 'f', 0)
                          .arg(pair.crossoverInterval->lo, 0, 'f', 0)
                          .arg(pair.crossoverInterval->hi, 0, 'f', 0)
                    : say("Where %1 and %2 would change places cannot be told from these mounts.").arg(a, b));
    }
    for (const Flag& flag : lines.flags) reported << qtext(words::text(flag.message)) + ".";
    return reported;
}

} // namespace

SweepPage::SweepPage(QWidget* parent)
    : VerdictPage(say("Sweep"), parent), plot_(new QCustomPlot), reported_(new QLabel) {
    setAccessibleName(say("Sweep"));
    explain(this, Topic::sweep);
    keepNamesApart(*plot_);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    reported_->setWordWrap(true);
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    reported_->setObjectName("Sweep told");
    layout->addWidget(plot_, 1);
    layout->addWidget(reported_);
}

void SweepPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange) draw();
}

void SweepPage::fill(const VerdictMatter& matter) {
    if (variesSetting(matter.question))
        show(settingSweep(matter.document, matter.question, matter.evidence),
             std::string(settingUnit(matter.question)), matter.unit, matter.question.margin.value);
    else
        show(powerSweep(matter.question, matter.evidence));
}

void SweepPage::show(const PowerSweep& sweep) {
    points_ = sweep.points;
    lines_ = sweep.lines;
    responses_.reset();
    xUnit_ = "W";
    unit_ = "K";
    if (lines_) swept_ = lines_->swept;
    reported_->setText(sentences(sweep).join("\n"));
    plot_->setVisible(lines_.has_value());
    draw();
}

void SweepPage::show(const SettingSweep& sweep, const std::string& settingUnit, const std::string& unit,
                     double margin) {
    points_ = sweep.points;
    lines_.reset();
    responses_ = sweep.responses;
    xUnit_ = settingUnit;
    unit_ = unit;
    swept_ = sweep.swept;
    reported_->setText(sentences(sweep, settingUnit, unit, margin).join("\n"));
    plot_->setVisible(responses_.has_value());
    draw();
}

std::string SweepPage::csv() const {
    return lines_ || responses_ ? sweepCsv(points_, xUnit_, unit_) : std::string();
}

QWidget* SweepPage::picture() { return plot_; }

/// The group's mounts, its line or curve, and its name where it ends.
void SweepPage::drawCurve(const Named& group, std::size_t place, const QVector<double>& x,
                          const QVector<double>& y) {
    const QPen pen = linePen(place);
    QVector<double> at;
    QVector<double> value;
    for (const SweepPoint& point : points_) {
        if (point.group.id != group.id) continue;
        at << point.x;
        value << point.y;
    }
    QCPGraph* marks = plot_->addGraph();
    marks->setData(at, value);
    marks->setPen(QPen(pen.color(), 1.3));
    marks->setLineStyle(QCPGraph::lsNone);
    marks->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, 7));
    QCPGraph* along = plot_->addGraph();
    along->setData(x, y, true);
    along->setPen(pen);
    nameLine(*plot_, qtext(group.name), pen.color(), x.last(), y.last());
}

void SweepPage::draw() {
    plot_->clearPlottables();
    plot_->clearItems();
    if (!lines_ && !responses_) return;
    plot_->setBackground(QBrush(colours().sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->xAxis->setLabel(qtext(xUnit_));
    plot_->yAxis->setLabel(qtext(unit_));
    for (std::size_t i = 0; lines_ && i < lines_->lines.size(); ++i) {
        const SweepLine& line = lines_->lines[i];
        drawCurve(line.group, i, {swept_.lo, swept_.hi},
                  {line.intercept + line.slope * swept_.lo, line.intercept + line.slope * swept_.hi});
    }
    for (std::size_t i = 0; responses_ && i < responses_->responses.size(); ++i) {
        const SweepResponse& response = responses_->responses[i];
        QVector<double> x;
        QVector<double> y;
        for (int step = 0; step <= curveSteps; ++step) {
            x << swept_.lo + step * (swept_.hi - swept_.lo) / curveSteps;
            y << response.at(x.last());
        }
        drawCurve(response.group, i, x, y);
        if (response.recommended) markSetting(*plot_, *response.recommended, linePen(i).color());
    }
    plot_->rescaleAxes();
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) axis->scaleRange(1.12);
    plot_->xAxis->setRangeUpper(swept_.hi + 0.22 * (swept_.hi - swept_.lo)); // room for the names
    plot_->replot();
}

} // namespace ibuki
