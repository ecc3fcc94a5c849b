// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/ladder.h"

#include "app/shell/class_mark_painter.h"
#include "app/shell/theme.h"
#include "app/shell/walk.h"
#include "app/shell/widgets.h"

#include <QPainter>
#include <cmath>

namespace ibuki {

Ladder::Ladder(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName("Ladder of materials");
    setMinimumHeight(160);
}

void Ladder::show(const Comparison& comparison, const std::map<std::string, MaterialClass>& kinds,
                  const std::string& unit) {
    comparison_ = comparison;
    kinds_ = kinds;
    unit_ = unit;
    setFocused(0);
    QStringList rungs;
    for (const LadderRung& rung : layout().rungs) rungs << qtext(rung.name) + " " + qtext(rung.figure);
    setAccessibleDescription(rungs.join("; "));
}

void Ladder::clear() {
    comparison_.reset();
    update();
}

void Ladder::highlight(std::optional<std::size_t> pair) {
    pair_ = pair;
    update();
}

void Ladder::markMount(const std::string& mountName) {
    selected_ = mountName;
    update();
}

LadderLayout Ladder::layout() const {
    if (!comparison_) return {};
    LadderSize size;
    size.width = width();
    size.height = height();
    double widest = 90;
    const QFontMetrics metrics(textFont(1.05, QFont::Medium));
    for (const GroupSummary& group : comparison_->groups)
        widest = std::max(widest, static_cast<double>(metrics.horizontalAdvance(qtext(group.name))));
    size.nameWidth = widest + 22;
    size.right = metrics.horizontalAdvance("00.0 ± 0.0") + 46;
    size.top = 12;
    size.bottom = fontMetrics().height() + 12;
    return layoutLadder(*comparison_, size, unit_);
}

void Ladder::paintRung(QPainter& painter, const LadderLayout& at, int index) const {
    const Colours& c = colours();
    const LadderRung& rung = at.rungs[static_cast<std::size_t>(index)];
    const bool meant =
        pair_ && comparison_ && *pair_ < comparison_->pairs.size()
        && (comparison_->pairs[*pair_].a == rung.group || comparison_->pairs[*pair_].b == rung.group);
    if (meant) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(c.band);
        painter.drawRoundedRect(QRectF(0, rung.y - 0.4 * at.rungHeight, width(), at.rungHeight * 0.94), 4, 4);
    }
    painter.setPen(QPen(c.line, 1));
    painter.drawLine(QPointF(at.scaleLeft, rung.y), QPointF(at.scaleRight, rung.y));
    painter.setPen(c.ink);
    painter.setFont(textFont(1.05, QFont::Medium));
    painter.drawText(QPointF(8, rung.y + 2), qtext(rung.name));
    if (const auto kind = kinds_.find(rung.name); kind != kinds_.end())
        paintClassMark(painter, kind->second, {14, rung.y + 0.62 * painter.fontMetrics().height() + 3}, 4.5,
                       c.quiet);
    const double below = rung.y + std::min(14.0, 0.3 * at.rungHeight);
    if (rung.isBound) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(c.hot);
        painter.drawPolygon(QPolygonF{QPointF(rung.meanX, below - 5), QPointF(rung.meanX + 9, below),
                                      QPointF(rung.meanX, below + 5)});
    } else {
        painter.setPen(QPen(c.hot, 3));
        painter.drawLine(QPointF(rung.lowX, below), QPointF(rung.highX, below));
        painter.setPen(QPen(c.hot, 2));
        painter.drawLine(QPointF(rung.meanX, below - 5), QPointF(rung.meanX, below + 5));
    }
    const GroupSummary& group = comparison_->groups[rung.group];
    int firstMark = 0;
    for (int r = 0; r < index; ++r)
        firstMark += static_cast<int>(at.rungs[static_cast<std::size_t>(r)].marksX.size());
    for (std::size_t i = 0; i < rung.marksX.size(); ++i) {
        const bool selected = group.mountNames[i] == selected_;
        painter.setPen(QPen(c.ink, 1.4));
        painter.setBrush(selected ? QBrush(c.ink) : QBrush(Qt::NoBrush));
        const QPointF at0(rung.marksX[i], rung.y);
        if (rung.beyondScale[i])
            painter.drawPolygon(QPolygonF{at0 + QPointF(-3, -5), at0 + QPointF(6, 0), at0 + QPointF(-3, 5)});
        else
            painter.drawEllipse(at0, 4.6, 4.6);
        if (showsFocus(firstMark + static_cast<int>(i))) {
            painter.setPen(QPen(c.cold, 2));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(QPointF(rung.marksX[i], rung.y), 8, 8);
        }
    }
    painter.setPen(c.ink);
    painter.setFont(textFont(0.95));
    double x = std::max(rung.highX, rung.meanX) + 12;
    if (!rung.marksX.empty() && rung.isBound) x = std::max(x, rung.meanX + 18);
    painter.drawText(QPointF(x, below + 5), qtext(rung.figure));
}

void Ladder::paintEvent(QPaintEvent*) {
    if (!comparison_) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    const LadderLayout at = layout();
    if (at.hasMargin) {
        QColor wash = c.hotWash;
        wash.setAlpha(120);
        painter.fillRect(QRectF(at.marginLeftX, 4, at.marginRightX - at.marginLeftX, at.axisY - 4), wash);
    }
    for (std::size_t i = 0; i < at.rungs.size(); ++i) paintRung(painter, at, static_cast<int>(i));
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(c.cold, 2));
    for (const LadderBracket& bracket : at.brackets) {
        painter.drawLine(QPointF(bracket.x, bracket.ys.front()), QPointF(bracket.x, bracket.ys.back()));
        for (double y : bracket.ys) painter.drawLine(QPointF(bracket.x, y), QPointF(bracket.x + 7, y));
    }
    for (const LadderSame& same : at.same) {
        painter.setPen(QPen(c.ink, 1));
        painter.drawLine(QPointF(same.x, same.y1), QPointF(same.x, same.y2));
        painter.setBrush(c.ink);
        for (double y : {same.y1, same.y2}) painter.drawEllipse(QPointF(same.x, y), 3, 3);
        painter.setBrush(Qt::NoBrush);
    }
    painter.setPen(c.quiet);
    painter.setFont(textFont(0.9));
    for (const LadderTick& tick : at.ticks)
        painter.drawText(QRectF(tick.x - 40, at.axisY + 4, 80, fontMetrics().height() + 4), Qt::AlignCenter,
                         qtext(tick.text));
}

std::vector<Ladder::Mark> Ladder::marks() const {
    std::vector<Mark> all;
    const LadderLayout at = layout();
    for (std::size_t r = 0; r < at.rungs.size(); ++r)
        for (std::size_t m = 0; m < at.rungs[r].marksX.size(); ++m)
            all.push_back({static_cast<int>(r), static_cast<int>(m),
                           QPointF(at.rungs[r].marksX[m], at.rungs[r].y),
                           qtext(comparison_->groups[at.rungs[r].group].mountNames[m])});
    return all;
}

int Ladder::itemAt(const QPointF& point) const {
    double nearest = 12;
    int found = -1;
    const auto all = marks();
    for (std::size_t i = 0; i < all.size(); ++i) {
        const double distance = std::hypot(point.x() - all[i].at.x(), point.y() - all[i].at.y());
        if (distance >= nearest) continue;
        nearest = distance;
        found = static_cast<int>(i);
    }
    return found;
}

QString Ladder::tip(int item) const { return marks().at(static_cast<std::size_t>(item)).mount; }
void Ladder::openItem(int item) { emit mountMeant(tip(item)); }

std::optional<int> Ladder::stepped(const QKeyEvent& event) const {
    const auto all = marks();
    if (all.empty()) return std::nullopt;
    const Mark& now = all[static_cast<std::size_t>(focused())];
    const int toRung = event.key() == Qt::Key_Up ? -1 : event.key() == Qt::Key_Down ? 1 : 0;
    if (toRung == 0) return walked(event, Qt::Horizontal, focused(), itemCount());
    std::optional<int> best;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].rung == now.rung + toRung && (all[i].place <= now.place || !best))
            best = static_cast<int>(i);
    return best ? best : focused();
}

} // namespace ibuki
