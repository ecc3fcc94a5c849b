// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/chance_grid.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QPainter>

namespace ibuki {

ChanceGrid::ChanceGrid(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName(say("Chance to settle each pair"));
    setObjectName("Chances");
    setMinimumHeight(180);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void ChanceGrid::show(const PowerAnalysis& analysis, Goal goal) {
    analysis_ = analysis;
    goal_ = goal;
    setFocused(focused());
}

void ChanceGrid::clear() {
    analysis_ = {};
    setFocused(0);
}

double ChanceGrid::chanceOf(const PairChance& pair) const {
    return goal_ == Goal::difference ? pair.different : pair.equivalent;
}

/// Steps: row b has the pairs with the levels before it; names stand on the diagonal.
QRectF ChanceGrid::cellOf(const PairChance& pair) const {
    const auto k = static_cast<double>(analysis_.levels.size());
    const double w = width() / (k + 0.6); // room for the last name
    const double h = std::min(height() / k, 56.0);
    return {static_cast<double>(pair.a) * w + 2, static_cast<double>(pair.b) * h + 2, w - 4, h - 4};
}

int ChanceGrid::itemAt(const QPointF& point) const {
    for (std::size_t i = 0; i < analysis_.pairs.size(); ++i)
        if (cellOf(analysis_.pairs[i]).contains(point)) return static_cast<int>(i);
    return -1;
}

QString ChanceGrid::tip(int item) const {
    if (item < 0 || item >= itemCount()) return {};
    const PairChance& pair = analysis_.pairs[static_cast<std::size_t>(item)];
    return say("%1 and %2: %3 % to see the margin if it is there, %4 % to show them the same if they are")
        .arg(qtext(analysis_.levels[pair.a]), qtext(analysis_.levels[pair.b]))
        .arg(100 * pair.different, 0, 'f', 0)
        .arg(100 * pair.equivalent, 0, 'f', 0);
}

void ChanceGrid::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    painter.setFont(textFont(analysis_.levels.size() > 8 ? 0.8 : 0.9));
    for (std::size_t i = 0; i < analysis_.pairs.size(); ++i) {
        const PairChance& pair = analysis_.pairs[i];
        const QRectF cell = cellOf(pair);
        const double chance = chanceOf(pair);
        painter.setPen(
            QPen(showsFocus(static_cast<int>(i)) ? c.ink : c.line, showsFocus(static_cast<int>(i)) ? 2 : 1));
        painter.setBrush(Qt::NoBrush);
        QRectF filled = cell;
        filled.setTop(cell.bottom() - chance * cell.height());
        painter.fillRect(filled, c.band);
        painter.drawRect(cell);
        painter.setPen(c.ink);
        painter.drawText(cell, Qt::AlignCenter, QString("%1 %").arg(100 * chance, 0, 'f', 0));
    }
    painter.setPen(c.quiet);
    for (std::size_t i = 0; i < analysis_.levels.size(); ++i) {
        QRectF at = cellOf({i, i, 0, 0});
        at.setWidth(std::max(at.width(), width() - at.left() - 2));
        painter.drawText(at, Qt::AlignLeft | Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(
                             QString("%1  × %2").arg(qtext(analysis_.levels[i])).arg(analysis_.mounts[i]),
                             Qt::ElideRight, static_cast<int>(at.width())));
    }
}

} // namespace ibuki
