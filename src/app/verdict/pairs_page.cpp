// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/pairs_page.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/verdict/amounts.h"
#include "store/paper/ladder_layout.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>
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

PairsPage::PairsPage(QWidget* parent) : QWidget(parent), table_(new QTableWidget) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    table_->setAccessibleName(say("Every pair"));
    table_->setEditTriggers(QTableWidget::NoEditTriggers);
    table_->setSelectionMode(QTableWidget::SingleSelection);
    table_->setTabKeyNavigation(false);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->installEventFilter(this);
    layout->addWidget(table_, 1);
    layout->addWidget(quietLabel(say("How much hotter the row ran than the column, with its interval.   ✓ "
                                     "told apart   ≈ the same within the "
                                     "margin   … not settled   ? provisional")));
    connect(table_, &QTableWidget::currentCellChanged, this, &PairsPage::meanCell);
}

void PairsPage::clear() {
    comparison_.reset();
    table_->clear();
    table_->setRowCount(0);
    table_->setColumnCount(0);
}

void PairsPage::show(const Comparison& comparison, const std::string& unit) {
    comparison_ = comparison;
    unit_ = unit;
    fill();
}

void PairsPage::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange && comparison_) fill();
}

void PairsPage::fill() {
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

void PairsPage::meanCell() {
    const QTableWidgetItem* item = table_->currentItem();
    const QVariant pair = item ? item->data(pairRole) : QVariant();
    emit pairMeant(pair.isValid() ? std::optional<std::size_t>(pair.toULongLong()) : std::nullopt);
}

bool PairsPage::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->matches(QKeySequence::Copy)) {
        if (const QTableWidgetItem* item = table_->currentItem())
            QApplication::clipboard()->setText(item->data(copyRole).toString());
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace ibuki
