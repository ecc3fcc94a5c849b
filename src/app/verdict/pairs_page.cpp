// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/pairs_page.h"

#include "app/drawn/theme.h"
#include "app/forms/copying.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/amounts.h"
#include "core/comparison/order_statistics.h"
#include "store/paper/ladder_layout.h"
#include "store/paper/verdict_csv.h"

#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr int pairRole = Qt::UserRole;
constexpr int copyRole = Qt::UserRole + 1;

/// Never colour alone.
QString markOf(const PairComparison& pair) {
    if (pair.provisional) return QStringLiteral(" ?");
    switch (pair.verdict) {
    case Verdict::different:
        return pair.size == DifferenceSize::withinMargin ? QStringLiteral(" ≈") : QStringLiteral(" ✓");
    case Verdict::equivalent:
        return QStringLiteral(" ≈");
    case Verdict::unresolved:
        break;
    }
    return QStringLiteral(" …");
}

struct CellText {
    QString shown;
    QString copied;
};

/// sign −1: the pair seen from its other side.
CellText cellText(const PairComparison& pair, double sign, const std::string& unit) {
    if (!pair.difference || !pair.ci) return {QStringLiteral("–"), {}};
    const double lo = sign > 0 ? pair.ci->lo : -pair.ci->hi;
    const double hi = sign > 0 ? pair.ci->hi : -pair.ci->lo;
    const QString difference = signedAmount(sign * *pair.difference, unit);
    const QString range = say("%1 to %2").arg(signedAmount(lo, unit), signedAmount(hi, unit));
    return {difference + markOf(pair) + "\n" + range,
            difference + " " + qtext(unit) + " (" + range + " " + qtext(unit) + ")"};
}

} // namespace

PairsPage::PairsPage(QWidget* parent)
    : VerdictPage(say("Pairs"), parent),
      table_(new QTableWidget),
      figures_(new QTableWidget),
      best_(quietLabel()) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    table_->setAccessibleName(say("Every pair"));
    table_->setEditTriggers(QTableWidget::NoEditTriggers);
    table_->setSelectionMode(QTableWidget::SingleSelection);
    table_->setTabKeyNavigation(false);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    copyOnKey(*table_, [this] {
        return table_->currentItem() ? table_->currentItem()->data(copyRole).toString() : QString();
    });
    figures_->setAccessibleName(say("Mean, median and best"));
    figures_->setEditTriggers(QTableWidget::NoEditTriggers);
    figures_->setTabKeyNavigation(false);
    figures_->verticalHeader()->hide();
    figures_->verticalHeader()->setDefaultSectionSize(fontMetrics().height() + 6);
    figures_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    layout->addWidget(table_, 3);
    layout->addWidget(quietLabel(say("How much hotter the row ran than the column, with its interval.   ✓ "
                                     "told apart   ≈ the same within the "
                                     "margin   … not settled   ? provisional")));
    copyRowOnKey(*figures_);
    layout->addWidget(figures_, 1);
    layout->addWidget(best_);
    connect(table_, &QTableWidget::currentCellChanged, this, &PairsPage::meanCell);
}

void PairsPage::clear() {
    comparison_.reset();
    for (QTableWidget* table : {table_, figures_}) {
        table->clear();
        table->setRowCount(0);
        table->setColumnCount(0);
    }
    figures_->hide();
    best_->clear();
}

void PairsPage::fill(const VerdictMatter& matter) {
    if (matter.evidence.comparison)
        show(*matter.evidence.comparison, matter.unit);
    else
        clear();
}

std::string PairsPage::csv() const { return comparison_ ? pairsCsv(*comparison_, unit_) : std::string(); }

void PairsPage::show(const Comparison& comparison, const std::string& unit) {
    comparison_ = comparison;
    unit_ = unit;
    fillPairs();
    fillFigures();
}

void PairsPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange && comparison_) fillPairs();
}

void PairsPage::fillPairs() {
    const QSignalBlocker quiet(table_);
    const auto order = bestFirst(*comparison_);
    const int count = static_cast<int>(order.size());
    table_->setRowCount(count);
    table_->setColumnCount(count);
    std::vector<int> place(order.size());
    QStringList names;
    for (int i = 0; i < count; ++i) {
        place[order[static_cast<std::size_t>(i)]] = i;
        names << qtext(comparison_->groups[order[static_cast<std::size_t>(i)]].name);
    }
    table_->setHorizontalHeaderLabels(names);
    table_->setVerticalHeaderLabels(names);
    for (int i = 0; i < count; ++i) {
        QTableWidgetItem* same = fixedItem({});
        same->setBackground(colours().band);
        table_->setItem(i, i, same);
    }
    for (std::size_t p = 0; p < comparison_->pairs.size(); ++p) {
        const PairComparison& pair = comparison_->pairs[p];
        for (const double sign : {1.0, -1.0}) {
            const auto [shown, copied] = cellText(pair, sign, unit_);
            QTableWidgetItem* item = fixedItem(shown);
            item->setTextAlignment(Qt::AlignCenter);
            item->setData(pairRole, static_cast<qulonglong>(p));
            item->setData(copyRole, copied);
            if (pair.verdict == Verdict::different) item->setFont(textFont(1, QFont::DemiBold));
            const std::size_t row = sign > 0 ? pair.a : pair.b;
            const std::size_t column = sign > 0 ? pair.b : pair.a;
            table_->setItem(place[row], place[column], item);
        }
    }
}

/// The best of many mounts beats the best of few though nothing is better: it is told for equal numbers only.
void PairsPage::fillFigures() {
    const auto best = bestOf(*comparison_);
    figures_->show();
    figures_->setColumnCount(best ? 5 : 4);
    QStringList heads{say("Level"), say("Mounts"), say("Mean"), say("Median")};
    if (best) heads << say("Best of %1").arg(best->mounts);
    figures_->setHorizontalHeaderLabels(heads);
    figures_->setRowCount(static_cast<int>(comparison_->groups.size()));
    int row = 0;
    for (std::size_t g : bestFirst(*comparison_)) {
        const GroupSummary& group = comparison_->groups[g];
        const auto amount = [&](const std::optional<double>& value) {
            return fixedItem(value ? qtext(amountText(*value, unit_)) : QStringLiteral("–"));
        };
        figures_->setItem(row, 0, fixedItem(qtext(group.name)));
        figures_->setItem(row, 1, fixedItem(QString::number(group.mounts)));
        figures_->setItem(row, 2, amount(group.mean));
        figures_->setItem(row, 3, amount(group.censoredMounts > 0 ? std::nullopt : group.median));
        if (best) figures_->setItem(row, 4, amount(group.best));
        ++row;
    }
    best_->setText(
        best ? say("The mean is what to expect. The best of %1 is what skilled hands may reach; by chance "
                   "alone it stands %2 below the mean.")
                   .arg(best->mounts)
                   .arg(qtext(amountText(best->bias, unit_)))
             : say("The mean is what to expect. The best mount is not told: with unequal numbers of "
                   "mounts, or one of each, it favours whom was mounted oftenest."));
}

void PairsPage::meanCell() {
    const QTableWidgetItem* item = table_->currentItem();
    const QVariant pair = item ? item->data(pairRole) : QVariant();
    emit pairMeant(pair.isValid() ? std::optional<std::size_t>(pair.toULongLong()) : std::nullopt);
}

} // namespace ibuki
