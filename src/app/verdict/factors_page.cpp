// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/factors_page.h"

#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/comparison/pair_family.h"
#include "core/distributions/distributions.h"
#include "store/paper/verdict_csv.h"

#include <QVBoxLayout>
#include <cmath>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr double apart = 0.05; ///< of lines at one level, so that their intervals do not cover each other

QString testText(const QString& name, const std::optional<FTest>& test) {
    if (!test) return say("%1: not told").arg(name);
    const QString p = test->p < 1e-4 ? QStringLiteral("< 0.0001") : QString::number(test->p, 'f', 4);
    return say("%1: F(%2, %3) = %4, p %5")
        .arg(name)
        .arg(test->df1)
        .arg(test->df2)
        .arg(test->f, 0, 'f', 2)
        .arg(p);
}

} // namespace

FactorsPage::FactorsPage(QWidget* parent)
    : VerdictPage(say("Factors"), parent), plot_(new QCustomPlot), reported_(new QLabel) {
    setAccessibleName(say("Both factors"));
    explain(this, Topic::twoFactors);
    keepNamesApart(*plot_);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    reported_->setWordWrap(true);
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    reported_->setObjectName("Factors told");
    layout->addWidget(plot_, 1);
    layout->addWidget(reported_);
}

void FactorsPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange && factors_) draw();
}

void FactorsPage::tell(const QString& why) {
    factors_.reset();
    plot_->hide();
    reported_->setText(why);
}

void FactorsPage::show(const TwoFactors& factors, const std::string& unit, double confidence) {
    factors_ = factors;
    unit_ = unit;
    confidence_ = confidence;
    plot_->show();
    reported_->setText(QStringList{testText(say("Interaction"), factors.interaction),
                                   testText(say("First factor"), factors.first),
                                   testText(say("Second factor"), factors.second)}
                           .join(QStringLiteral("   ")));
    draw();
}

void FactorsPage::fill(const VerdictMatter& matter) {
    if (matter.evidence.factors)
        show(*matter.evidence.factors, matter.unit, matter.question.confidence);
    else
        tell(matter.question.secondFactor
                 ? say("No combination of both factors was mounted twice yet.")
                 : say("The question has one factor: materials, or what it compares. A second one, "
                       "such as coolers, is added to it under Question."));
}

std::string FactorsPage::csv() const { return factors_ ? factorsCsv(*factors_, unit_) : std::string(); }

QWidget* FactorsPage::picture() { return plot_; }

void FactorsPage::draw() {
    const Colours& c = colours();
    plot_->clearPlottables();
    plot_->clearItems();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->yAxis->setLabel(qtext(unit_));
    const auto ticker = QSharedPointer<QCPAxisTickerText>::create();
    for (std::size_t b = 0; b < factors_->secondLevels.size(); ++b)
        ticker->addTick(static_cast<double>(b), qtext(factors_->secondLevels[b].name));
    plot_->xAxis->setTicker(ticker);
    const double t = studentQuantile(0.5 + confidence_ / 2, factors_->df);
    for (std::size_t a = 0; a < factors_->firstLevels.size(); ++a) {
        QVector<double> x;
        QVector<double> y;
        QVector<double> half;
        for (std::size_t b = 0; b < factors_->secondLevels.size(); ++b) {
            const FactorCell& cell = factors_->cell(a, b);
            if (!cell.mean) continue;
            x << static_cast<double>(b)
                     + apart
                           * (static_cast<double>(a)
                              - 0.5 * static_cast<double>(factors_->firstLevels.size() - 1));
            y << *cell.mean;
            half << t * factors_->sd / std::sqrt(cell.mounts);
        }
        if (x.isEmpty()) continue;
        QCPGraph* line = plot_->addGraph();
        line->setPen(linePen(a));
        line->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, 7));
        line->setData(x, y, true);
        auto* bars = new QCPErrorBars(plot_->xAxis, plot_->yAxis);
        bars->setDataPlottable(line);
        bars->setPen(QPen(line->pen().color(), 1.4));
        bars->setData(half);
        nameLine(*plot_, qtext(factors_->firstLevels[a].name), line->pen().color(), x.last(), y.last());
    }
    plot_->rescaleAxes();
    plot_->xAxis->setRange(-0.4, static_cast<double>(factors_->secondLevels.size()) - 0.2);
    plot_->yAxis->scaleRange(1.15);
    plot_->replot();
}

} // namespace ibuki
