// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/value_page.h"

#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/copying.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/forms/wrapped_items.h"
#include "app/say.h"
#include "store/paper/sentences.h"
#include "store/paper/verdict_csv.h"
#include "words/words.h"

#include <QGridLayout>
#include <QHeaderView>
#include <QListWidget>
#include <QSlider>
#include <QTableWidget>
#include <QVBoxLayout>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr int sliderTop = 10;
constexpr double interval = 1.96; ///< × standard error, drawn beside a mean

QString namesOf(const std::vector<Criterion>& criteriaOf) {
    QStringList names;
    for (Criterion criterion : criteriaOf) names << sayTerm(criterionName(criterion));
    return names.join(", ");
}

QString adviceText(const Advice& advice, const MaterialValue& value) {
    QString use = sayTerm(useName(advice.use));
    use[0] = use[0].toUpper();
    if (advice.nothingMatters)
        return advice.notKnown.empty()
                   ? say("%1: none of the differences matters.").arg(use)
                   : say("%1: %2 was not rated of every material.").arg(use, namesOf(advice.notKnown));
    QStringList names;
    for (std::size_t row : advice.rows) names << qtext(value.rows[row].material);
    QString text = names.size() == 1
                       ? say("%1: %2").arg(use, names.front())
                       : say("%1: %2 (no settled difference between them)").arg(use, names.join(", "));
    if (!advice.reasons.empty()) text += say(", by its %1").arg(namesOf(advice.reasons));
    if (!advice.notKnown.empty()) text += say("; %1 not rated of all").arg(namesOf(advice.notKnown));
    return text + ".";
}

} // namespace

ValuePage::ValuePage(QWidget* parent)
    : VerdictPage(say("Value"), parent),
      plot_(new QCustomPlot),
      reported_(new QLabel),
      table_(new QTableWidget),
      advice_(new QListWidget) {
    explain(this, Topic::value);
    plot_->setAccessibleName(say("Temperature against price"));
    keepNamesApart(*plot_);
    reported_->setWordWrap(true);
    reported_->setObjectName("Value told");
    table_->setAccessibleName(say("Scores and shares"));
    table_->setEditTriggers(QTableWidget::NoEditTriggers);
    table_->setTabKeyNavigation(false);
    copyRowOnKey(*table_);
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    advice_->setAccessibleName(say("What to take for which use"));
    wrapItems(*advice_);
    copyItemOnKey(*advice_);
    advice_->setSpacing(3);
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(0, 0, 0, 0);
    auto* above = new QHBoxLayout;
    above->addWidget(plot_, 3);
    above->addWidget(makeSliders(), 2);
    inside->addLayout(above, 3);
    inside->addWidget(reported_);
    auto* below = new QHBoxLayout;
    below->addWidget(table_, 2);
    below->addWidget(advice_, 3);
    inside->addLayout(below, 2);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scrolled(inside)); // large text makes it higher than the page
    fitText();
}

void ValuePage::fitText() {
    const int line = fontMetrics().height();
    plot_->setMinimumHeight(11 * line);
    table_->setMinimumHeight(8 * line);
    advice_->setMinimumHeight(8 * line);
}

QWidget* ValuePage::makeSliders() {
    auto* box = new QWidget;
    auto* grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->addWidget(quietLabel(say("What counts:")), 0, 0, 1, 2);
    for (std::size_t c = 0; c < criteria; ++c) {
        const QString name = sayTerm(criterionName(static_cast<Criterion>(c)));
        auto* slider = new QSlider(Qt::Horizontal);
        slider->setRange(0, sliderTop);
        slider->setValue(c < 2 ? sliderTop / 2 : 0);
        slider->setAccessibleName(name);
        slider->setObjectName("Weight " + name);
        connect(slider, &QSlider::valueChanged, this, &ValuePage::weigh);
        sliders_.at(c) = slider;
        const int row = static_cast<int>(c) + 1;
        grid->addWidget(new QLabel(name), row, 0);
        grid->addWidget(slider, row, 1);
    }
    grid->setRowStretch(static_cast<int>(criteria) + 1, 1);
    return box;
}

std::optional<Weights> ValuePage::weights() const {
    Weights weights{};
    double sum = 0;
    for (std::size_t c = 0; c < criteria; ++c) {
        weights.at(c) = sliders_.at(c)->value();
        sum += weights.at(c);
    }
    return sum > 0 ? std::optional(weights) : std::nullopt;
}

void ValuePage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange) draw();
    if (event->type() == QEvent::FontChange) fitText();
}

void ValuePage::fill(const VerdictMatter& matter) {
    value_ = materialValue(matter.document, matter.question, matter.evidence, matter.now);
    for (QWidget* part :
         {static_cast<QWidget*>(plot_), static_cast<QWidget*>(table_), static_cast<QWidget*>(advice_)})
        part->setVisible(value_.front.has_value());
    for (std::size_t c = 0; c < criteria; ++c) {
        const bool known = std::find(value_.missing.begin(), value_.missing.end(), static_cast<Criterion>(c))
                           == value_.missing.end();
        sliders_.at(c)->setEnabled(known && value_.front);
        sliders_.at(c)->setToolTip(known ? QString() : say("Not known of every material: it counts nothing"));
    }
    tell();
    fillAdvice(adviceFor(value_, matter.evidence));
    weigh();
    draw();
}

void ValuePage::weigh() {
    rescore(value_, weights());
    fillTable();
}

void ValuePage::tell() {
    QStringList reported;
    if (!value_.front) reported << qtext(words::complaint(*value_.reason));
    for (std::size_t i = 0; value_.front && i < value_.rows.size(); ++i)
        if (const auto by = value_.front->rows[i].dominatedBy)
            reported << (value_.front->rows[i].clearly
                             ? say("%1 costs no less than %2 and runs hotter.")
                             : say("%1 costs no less than %2 and was measured hotter, though not clearly."))
                            .arg(qtext(value_.rows[i].material), qtext(value_.rows[*by].material));
    if (!value_.leftOut.empty()) {
        QStringList names;
        for (const std::string& name : value_.leftOut) names << qtext(name);
        reported << say("Without a price or a mean: %1.").arg(names.join(", "));
    }
    reported_->setText(reported.join(" "));
}

void ValuePage::fillTable() {
    if (!value_.front) return;
    table_->setColumnCount(4);
    table_->setHorizontalHeaderLabels({say("Material"), qtext(value_.currency), say("Score"), say("First")});
    table_->setRowCount(static_cast<int>(value_.rows.size()));
    std::vector<std::size_t> order(value_.rows.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return value_.front->rows[a].score.value_or(0) > value_.front->rows[b].score.value_or(0);
    });
    int row = 0;
    for (std::size_t i : order) {
        const ValuedRow& judged = value_.front->rows[i];
        table_->setItem(row, 0, fixedItem(qtext(value_.rows[i].material)));
        table_->setItem(row, 1, fixedItem(QString::number(*value_.rows[i].of(Criterion::price), 'f', 2)));
        table_->setItem(
            row, 2, fixedItem(judged.score ? QString::number(*judged.score, 'f', 2) : QStringLiteral("–")));
        table_->setItem(row, 3, fixedItem(say("%1 %").arg(100 * judged.firstShare, 0, 'f', 0)));
        ++row;
    }
}

void ValuePage::fillAdvice(const std::vector<Advice>& advice) {
    advice_->clear();
    for (const Advice& one : advice) advice_->addItem(adviceText(one, value_));
}

std::string ValuePage::csv() const { return value_.front ? valueCsv(value_) : std::string(); }

QWidget* ValuePage::picture() { return plot_; }

void ValuePage::draw() {
    plot_->clearPlottables();
    plot_->clearItems();
    if (!value_.front) return;
    const Colours& c = colours();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->xAxis->setLabel(say("An application, %1").arg(qtext(value_.currency)));
    plot_->yAxis->setLabel(QStringLiteral("K"));
    QVector<double> price;
    QVector<double> delta;
    QVector<double> half;
    for (const ValueRow& row : value_.rows) {
        price << *row.of(Criterion::price);
        delta << *row.of(Criterion::delta);
        half << interval * row.deltaSe;
        nameLine(*plot_, qtext(row.material), c.ink, price.last(), delta.last());
    }
    QVector<double> frontPrice;
    QVector<double> frontDelta;
    for (std::size_t i : value_.front->front) {
        frontPrice << price[static_cast<qsizetype>(i)];
        frontDelta << delta[static_cast<qsizetype>(i)];
    }
    QCPGraph* front = plot_->addGraph();
    front->setData(frontPrice, frontDelta);
    front->setPen(QPen(c.cold, 2));
    QCPGraph* marks = plot_->addGraph();
    marks->setData(price, delta);
    marks->setLineStyle(QCPGraph::lsNone);
    marks->setPen(QPen(c.ink, 1.4));
    marks->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, 9));
    auto* bars = new QCPErrorBars(plot_->xAxis, plot_->yAxis);
    bars->setDataPlottable(marks);
    bars->setPen(QPen(c.ink, 1.2));
    bars->setData(half);
    plot_->rescaleAxes();
    plot_->yAxis->scaleRange(1.15);
    const QCPRange range = plot_->xAxis->range();
    plot_->xAxis->setRange(range.lower - 0.06 * range.size(),
                           range.upper + 0.42 * range.size()); // room for the names
    plot_->replot();
}

} // namespace ibuki
