// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/verdict/ladder.h"

#include "app/shell/class_mark_painter.h"
#include "app/shell/theme.h"
#include "app/shell/widgets.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace ibuki {

Ladder::Ladder(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName("Ladder of materials");
    setMinimumHeight(160);
}

void Ladder::show(const Comparison& comparison, const std::map<std::string, MaterialClass>& kinds,
                  const std::string& unit) {
    comparison_ = comparison;
    kinds_ = kinds;
    unit_ = unit;
    rung_ = 0;
    mark_ = 0;
    QStringList rungs;
    for (const LadderRung& rung : layout().rungs) rungs << qtext(rung.name) + " " + qtext(rung.figure);
    setAccessibleDescription(rungs.join("; "));
    update();
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
    for (std::size_t i = 0; i < rung.marksX.size(); ++i) {
        const bool selected = group.mountNames[i] == selected_;
        painter.setPen(QPen(c.ink, 1.4));
        painter.setBrush(selected ? QBrush(c.ink) : QBrush(Qt::NoBrush));
        const QPointF at0(rung.marksX[i], rung.y);
        if (rung.beyondScale[i])
            painter.drawPolygon(QPolygonF{at0 + QPointF(-3, -5), at0 + QPointF(6, 0), at0 + QPointF(-3, 5)});
        else
            painter.drawEllipse(at0, 4.6, 4.6);
        if (hasFocus() && index == rung_ && static_cast<int>(i) == mark_) {
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

std::optional<std::pair<int, int>> Ladder::markAt(const QPointF& point) const {
    const LadderLayout at = layout();
    double nearest = 12;
    std::optional<std::pair<int, int>> found;
    for (std::size_t r = 0; r < at.rungs.size(); ++r)
        for (std::size_t m = 0; m < at.rungs[r].marksX.size(); ++m) {
            const QPointF off = point - QPointF(at.rungs[r].marksX[m], at.rungs[r].y);
            const double distance = std::hypot(off.x(), off.y());
            if (distance >= nearest) continue;
            nearest = distance;
            found = {static_cast<int>(r), static_cast<int>(m)};
        }
    return found;
}

const std::string& Ladder::mountName(const LadderLayout& at, int rung, int mark) const {
    return comparison_->groups[at.rungs[static_cast<std::size_t>(rung)].group]
        .mountNames[static_cast<std::size_t>(mark)];
}

void Ladder::mousePressEvent(QMouseEvent* event) {
    const auto mark = markAt(event->position());
    if (!mark) return;
    std::tie(rung_, mark_) = *mark;
    emit mountMeant(qtext(mountName(layout(), rung_, mark_)));
}

void Ladder::keyPressEvent(QKeyEvent* event) {
    const LadderLayout at = layout();
    if (at.rungs.empty()) return;
    const auto marks = [&] {
        return static_cast<int>(at.rungs[static_cast<std::size_t>(rung_)].marksX.size());
    };
    switch (event->key()) {
    case Qt::Key_Up:
        rung_ = std::max(0, rung_ - 1);
        break;
    case Qt::Key_Down:
        rung_ = std::min(static_cast<int>(at.rungs.size()) - 1, rung_ + 1);
        break;
    case Qt::Key_Left:
        --mark_;
        break;
    case Qt::Key_Right:
        ++mark_;
        break;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        emit mountMeant(qtext(mountName(at, rung_, mark_)));
        return;
    default:
        QWidget::keyPressEvent(event);
        return;
    }
    mark_ = std::clamp(mark_, 0, marks() - 1);
    update();
}

bool Ladder::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip && comparison_) {
        auto* help = static_cast<QHelpEvent*>(event);
        const auto mark = markAt(help->pos());
        const LadderLayout at = layout();
        QToolTip::showText(help->globalPos(),
                           mark ? qtext(mountName(at, mark->first, mark->second)) : QString());
        return true;
    }
    return QWidget::event(event);
}

} // namespace ibuki
