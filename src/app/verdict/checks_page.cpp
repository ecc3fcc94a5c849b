// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/checks_page.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/amounts.h"
#include "store/paper/verdict_csv.h"
#include "words/words.h"

#include <QTableWidget>
#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr double nearPx = 14;
constexpr int mostNamed = 8;

QString namesOf(const Document& document, const std::vector<Id<Mount>>& mounts) {
    QStringList names;
    for (const Id<Mount> id : mounts)
        if (const Mount* mount = document.find(id)) names << qtext(mount->name);
    const auto more = names.size() - mostNamed;
    if (more <= 0) return names.join(", ");
    return names.mid(0, mostNamed).join(", ") + " " + sayMany("and {count} more", "and {count} more", more);
}

/// What the chart says, and what to do.
QStringList sentences(const Document& document, const CheckEvidence& checks, const std::string& unit) {
    if (!checks.health) return {qtext(words::complaint(*checks.reason))};
    const BenchHealth& health = *checks.health;
    QStringList reported;
    reported << (health.moved ? say("The bench moved: its check mounts leave the limits.")
                              : say("No check mount shows that the bench moved."));
    if (drifts(health))
        reported << say("It drifts by %1 a mount (95 % interval %2 to %3).")
                        .arg(signedAmount(health.slope, unit, 3),
                             signedAmount(health.slopeInterval.lo, unit, 3),
                             signedAmount(health.slopeInterval.hi, unit, 3));
    if (!checks.touched.empty())
        reported << say("Made since the last check mount that was good, so repeat these, not all: %1.")
                        .arg(namesOf(document, checks.touched));
    if (checks.corrected)
        reported << say("Below: means as they were measured, and with the order of mounts in the model.");
    return reported;
}

} // namespace

ChecksPage::ChecksPage(QWidget* parent)
    : VerdictPage(say("Checks"), parent),
      plot_(new QCustomPlot),
      reported_(new QLabel),
      figures_(figureTable(say("Means, corrected and not"),
                           {say("Level"), say("As measured"), say("Corrected for the order")})) {
    setAccessibleName(say("Check mounts"));
    explain(this, Topic::benchHealth);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    reported_->setWordWrap(true);
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    reported_->setObjectName("Checks told");
    layout->addWidget(plot_, 2);
    layout->addWidget(reported_);
    layout->addWidget(figures_, 1);
    connect(plot_, &QCustomPlot::mousePress, this, [this](QMouseEvent* event) {
        if (!checks_.health) return;
        for (std::size_t i = 0; i < checks_.health->points.size(); ++i) {
            const HealthPoint& point = checks_.health->points[i];
            const QPointF at(plot_->xAxis->coordToPixel(point.order),
                             plot_->yAxis->coordToPixel(point.value));
            if (QLineF(at, event->pos()).length() < nearPx) emit mountMeant(checks_.mounts[i]);
        }
    });
}

void ChecksPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange) draw();
}

void ChecksPage::show(const Document& document, const CheckEvidence& checks, const Comparison* comparison,
                      const std::string& unit) {
    checks_ = checks;
    unit_ = unit;
    names_.clear();
    for (const Id<Mount> id : checks.mounts)
        names_ << (document.find(id) ? qtext(document.find(id)->name) : QString());
    reported_->setText(sentences(document, checks, unit).join("\n"));
    plot_->setVisible(checks.health.has_value());
    fillFigures(comparison, unit);
    draw();
}

void ChecksPage::fill(const VerdictMatter& matter) {
    show(matter.document, checkEvidence(matter.question, matter.evidence),
         matter.evidence.comparison ? &*matter.evidence.comparison : nullptr, matter.unit);
}

std::string ChecksPage::csv() const {
    return checks_.health ? checksCsv(*checks_.health, unit_) : std::string();
}

QWidget* ChecksPage::picture() { return plot_; }

void ChecksPage::fillFigures(const Comparison* comparison, const std::string& unit) {
    figures_->setVisible(checks_.corrected && comparison);
    if (!checks_.corrected || !comparison) return;
    figures_->setRowCount(static_cast<int>(comparison->groups.size()));
    const auto text = [&](const std::optional<double>& value, const std::optional<Interval>& ci) {
        if (!value) return QStringLiteral("–");
        const QString amount = qtext(amountText(*value, unit));
        return ci ? say("%1 (%2 to %3)")
                        .arg(amount, qtext(amountText(ci->lo, unit)), qtext(amountText(ci->hi, unit)))
                  : amount;
    };
    for (std::size_t i = 0; i < comparison->groups.size(); ++i) {
        const GroupSummary& plain = comparison->groups[i];
        const int row = static_cast<int>(i);
        figures_->setItem(row, 0, fixedItem(qtext(plain.name)));
        figures_->setItem(row, 1, fixedItem(text(plain.adjusted, plain.ci)));
        for (const GroupSummary& corrected : checks_.corrected->groups)
            if (corrected.id == plain.id)
                figures_->setItem(row, 2, fixedItem(text(corrected.adjusted, corrected.ci)));
    }
}

namespace {

struct ChartLines {
    QVector<double> order;
    QVector<double> value;
    QVector<double> ewma;
    QVector<double> low;
    QVector<double> high;
    QVector<double> outAt;
    QVector<double> outValue;
};

ChartLines linesOf(const std::vector<HealthPoint>& points) {
    ChartLines lines;
    for (const HealthPoint& point : points) {
        lines.order << point.order;
        lines.value << point.value;
        lines.ewma << point.ewma;
        lines.low << point.low;
        lines.high << point.high;
        if (!point.out) continue;
        lines.outAt << point.order;
        lines.outValue << point.ewma;
    }
    return lines;
}

} // namespace

void ChecksPage::draw() {
    plot_->clearPlottables();
    plot_->clearItems();
    if (!checks_.health) return;
    const Colours& c = colours();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->yAxis->setLabel(qtext(unit_));
    const ChartLines lines = linesOf(checks_.health->points);
    const auto ticker = QSharedPointer<QCPAxisTickerText>::create();
    for (qsizetype i = 0; i < lines.order.size(); ++i) ticker->addTick(lines.order[i], names_.value(i));
    plot_->xAxis->setTicker(ticker);
    const auto add = [&](const QVector<double>& y, const QPen& pen) {
        QCPGraph* graph = plot_->addGraph();
        graph->setData(lines.order, y, true);
        graph->setPen(pen);
        return graph;
    };
    QCPGraph* below = add(lines.low, QPen(c.quiet, 1, Qt::DashLine));
    QCPGraph* above = add(lines.high, QPen(c.quiet, 1, Qt::DashLine));
    above->setChannelFillGraph(below);
    above->setBrush(QBrush(c.band));
    add(lines.ewma, QPen(c.cold, 2.2));
    QCPGraph* points = add(lines.value, QPen(c.ink, 1.4));
    points->setLineStyle(QCPGraph::lsNone);
    points->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, 9));
    QCPGraph* out = plot_->addGraph();
    out->setData(lines.outAt, lines.outValue, true);
    out->setPen(QPen(c.hot, 2));
    out->setLineStyle(QCPGraph::lsNone);
    out->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssTriangle, 12));
    plot_->rescaleAxes();
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) axis->scaleRange(1.2);
    plot_->replot();
}

} // namespace ibuki
