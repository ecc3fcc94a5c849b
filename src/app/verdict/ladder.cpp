// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/ladder.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/drawn/walk.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "store/paper/sentences.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

namespace ibuki {

Ladder::Ladder(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName(say("Ladder of materials"));
    setMinimumHeight(160);
}

void Ladder::show(const Comparison& comparison, const GroupClasses& classes, const std::string& unit) {
    comparison_ = comparison;
    classes_ = classes;
    unit_ = unit;
    lay();
    setFocused(0);
    QStringList rungs;
    for (const LadderRung& rung : layout_.rungs) rungs << qtext(rung.name) + " " + qtext(rung.figure);
    setAccessibleDescription(rungs.join("; "));
}

void Ladder::clear() {
    comparison_.reset();
    lay();
    update();
}

void Ladder::highlight(std::optional<std::size_t> pair) {
    pair_ = pair;
    update();
}

void Ladder::markMount(std::optional<Id<Mount>> mount) {
    selected_ = mount;
    update();
}

LadderSize Ladder::space() const {
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
    return size;
}

void Ladder::lay() {
    layout_ = comparison_ ? layoutLadder(*comparison_, space(), unit_) : LadderLayout{};
    marks_.clear();
    for (std::size_t r = 0; r < layout_.rungs.size(); ++r) {
        const LadderRung& rung = layout_.rungs[r];
        const auto& mounts = comparison_->groups[rung.group].mountsInOrder;
        const auto first = static_cast<std::ptrdiff_t>(marks_.size());
        for (std::size_t m = 0; m < rung.marksX.size(); ++m)
            marks_.push_back({r, 0, QPointF(rung.marksX[m], rung.y), Id<Mount>{mounts[m].id},
                              qtext(mounts[m].name), static_cast<bool>(rung.beyondScale[m])});
        std::stable_sort(marks_.begin() + first, marks_.end(),
                         [](const Mark& a, const Mark& b) { return a.at.x() < b.at.x(); });
        for (auto i = static_cast<std::size_t>(first); i < marks_.size(); ++i)
            marks_[i].place = static_cast<int>(i) - static_cast<int>(first);
    }
}

void Ladder::resizeEvent(QResizeEvent* event) {
    DrawnItems::resizeEvent(event);
    lay();
}

/// A ground for both rungs of the pair that is meant, below all that stands on rungs.
void Ladder::paintMeant(QPainter& painter) const {
    if (!pair_ || *pair_ >= comparison_->pairs.size()) return;
    const PairComparison& pair = comparison_->pairs[*pair_];
    painter.setPen(Qt::NoPen);
    painter.setBrush(colours().band);
    for (const LadderRung& rung : layout_.rungs)
        if (rung.group == pair.a || rung.group == pair.b)
            painter.drawRoundedRect(
                QRectF(0, rung.y - 0.4 * layout_.rungHeight, width(), layout_.rungHeight * 0.94), 4, 4);
}

void Ladder::paintRung(QPainter& painter, std::size_t index) const {
    const Colours& c = colours();
    const LadderRung& rung = layout_.rungs[index];
    painter.setPen(QPen(c.line, 1));
    painter.drawLine(QPointF(layout_.scaleLeft, rung.y), QPointF(layout_.scaleRight, rung.y));
    painter.setPen(c.ink);
    painter.setFont(textFont(1.05, QFont::Medium));
    painter.drawText(QPointF(8, rung.y + 2), qtext(rung.name));
    if (const auto kind = classes_.find(comparison_->groups[rung.group].id); kind != classes_.end())
        paintClassMark(painter, kind->second, {14, rung.y + 0.62 * painter.fontMetrics().height() + 3}, 4.5,
                       c.quiet);
    const double below = rung.y + std::min(14.0, 0.3 * layout_.rungHeight);
    if (rung.isCensored) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(c.hot);
        painter.drawPolygon(QPolygonF{QPointF(rung.meanX, below - 5), QPointF(rung.meanX + 9, below),
                                      QPointF(rung.meanX, below + 5)});
    } else {
        painter.setPen(rung.isProvisional ? QPen(c.hot, 2, Qt::DashLine) : QPen(c.hot, 3));
        painter.drawLine(QPointF(rung.lowX, below), QPointF(rung.highX, below));
        painter.setPen(QPen(c.hot, 2));
        painter.drawLine(QPointF(rung.meanX, below - 5), QPointF(rung.meanX, below + 5));
    }
    painter.setPen(c.ink);
    painter.setFont(textFont(0.95));
    double x = std::max(rung.highX, rung.meanX) + 12;
    if (!rung.marksX.empty() && rung.isCensored) x = std::max(x, rung.meanX + 18);
    painter.drawText(QPointF(x, below + 5), qtext(rung.figure));
    if (rung.chance.empty()) return;
    painter.setPen(c.quiet);
    painter.setFont(textFont(smallText));
    painter.drawText(QPointF(x, below + 5 + 0.8 * layout_.rungHeight * 0.28 + 6), qtext(rung.chance));
}

void Ladder::paintMark(QPainter& painter, int item) const {
    const Colours& c = colours();
    const Mark& mark = marks_[static_cast<std::size_t>(item)];
    painter.setPen(QPen(c.ink, 1.4));
    painter.setBrush(mark.mount == selected_ ? QBrush(c.ink) : QBrush(Qt::NoBrush));
    if (mark.beyondScale)
        painter.drawPolygon(
            QPolygonF{mark.at + QPointF(-3, -5), mark.at + QPointF(6, 0), mark.at + QPointF(-3, 5)});
    else
        painter.drawEllipse(mark.at, 4.6, 4.6);
    if (!showsFocus(item)) return;
    painter.setPen(QPen(c.cold, 2));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(mark.at, 8, 8);
}

void Ladder::paintEvent(QPaintEvent*) {
    if (!comparison_) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Colours& c = colours();
    const LadderLayout& at = layout_;
    if (at.hasMargin) {
        QColor wash = c.hotWash;
        wash.setAlpha(120);
        painter.fillRect(QRectF(at.marginLeftX, 4, at.marginRightX - at.marginLeftX, at.axisY - 4), wash);
    }
    paintMeant(painter);
    for (std::size_t i = 0; i < at.rungs.size(); ++i) paintRung(painter, i);
    for (int i = 0; i < itemCount(); ++i) paintMark(painter, i);
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

int Ladder::itemAt(const QPointF& point) const {
    double nearest = 12;
    int found = -1;
    for (int i = 0; i < itemCount(); ++i) {
        const QPointF away = point - marks_[static_cast<std::size_t>(i)].at;
        const double distance = std::hypot(away.x(), away.y());
        if (distance >= nearest) continue;
        nearest = distance;
        found = i;
    }
    return found;
}

QString Ladder::figureUnderFocus() const {
    if (focused() >= itemCount()) return {};
    const Mark& mark = marks_[static_cast<std::size_t>(focused())];
    const GroupSummary& group = comparison_->groups[layout_.rungs[mark.rung].group];
    QString text = qtext(group.name);
    if (group.adjusted) text += " " + qtext(amountText(*group.adjusted, unit_));
    if (group.ci)
        text += " ("
                + say("%1 to %2")
                      .arg(qtext(amountText(group.ci->lo, unit_)), qtext(amountText(group.ci->hi, unit_)))
                + ")";
    return text + ", " + sayMany("{count} mount", "{count} mounts", group.mounts) + "; " + mark.name;
}

QString Ladder::tip(int item) const { return marks_.at(static_cast<std::size_t>(item)).name; }
void Ladder::openItem(int item) { emit mountMeant(marks_.at(static_cast<std::size_t>(item)).mount); }

std::optional<int> Ladder::stepped(const QKeyEvent& event) const {
    if (marks_.empty()) return std::nullopt;
    const Mark& now = marks_[static_cast<std::size_t>(focused())];
    const int toRung = event.key() == Qt::Key_Up ? -1 : event.key() == Qt::Key_Down ? 1 : 0;
    const int rung = static_cast<int>(now.rung) + toRung;
    std::vector<int> along;
    for (int i = 0; i < itemCount(); ++i)
        if (static_cast<int>(marks_[static_cast<std::size_t>(i)].rung) == rung) along.push_back(i);
    if (along.empty()) return focused(); // above the first or below the last
    const int last = static_cast<int>(along.size()) - 1;
    const auto place = toRung == 0 ? walked(event, Qt::Horizontal, now.place, last + 1)
                                   : std::optional(std::min(now.place, last));
    if (!place) return std::nullopt;
    return along[static_cast<std::size_t>(*place)];
}

} // namespace ibuki
