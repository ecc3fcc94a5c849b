// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/later_days.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/say.h"

#include <QPainter>
#include <QWheelEvent>

namespace ibuki {
namespace {

constexpr double markStep = 22;

} // namespace

LaterDays::LaterDays(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName(say("Days to come back"));
    setObjectName("Days to come back");
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void LaterDays::show(std::vector<BoardDay> days) {
    days_ = std::move(days);
    first_ = std::clamp(first_, 0, std::max(0, itemCount() - shown()));
    setFocused(focused());
    updateGeometry();
}

QSize LaterDays::sizeHint() const {
    const double line = QFontMetricsF(textFont(smallText)).height();
    return {400, static_cast<int>(3 * line + 20)};
}

double LaterDays::tileWidth() const {
    return QFontMetricsF(textFont(smallText)).horizontalAdvance(QStringLiteral("Wed 2031-03-04")) + 22;
}

int LaterDays::shown() const { return std::max(1, static_cast<int>(width() / tileWidth())); }

int LaterDays::itemAt(const QPointF& point) const {
    const int item = first_ + static_cast<int>(point.x() / tileWidth());
    return item < itemCount() && item < first_ + shown() ? item : -1;
}

QString LaterDays::tip(int item) const {
    if (item < 0 || item >= itemCount()) return {};
    const BoardDay& day = days_[static_cast<std::size_t>(item)];
    return day.title + (day.overdue ? say(", overdue") : QString()) + "\n" + day.detail;
}

void LaterDays::bringIntoView(int item) {
    first_ = std::clamp(first_, std::max(0, item - shown() + 1), std::max(0, item));
    update();
}

void LaterDays::wheelEvent(QWheelEvent* event) {
    const QPoint turn = event->angleDelta();
    first_ = std::clamp(first_ + (turn.x() + turn.y() > 0 ? -1 : 1), 0, std::max(0, itemCount() - shown()));
    update();
}

void LaterDays::changeEvent(QEvent* event) {
    DrawnItems::changeEvent(event);
    if (event->type() == QEvent::FontChange) updateGeometry();
}

void LaterDays::paintDay(QPainter& painter, const QRectF& rect, int item) const {
    const Colours& c = colours();
    const BoardDay& day = days_[static_cast<std::size_t>(item)];
    const double line = painter.fontMetrics().height();
    painter.setPen(QPen(c.line, 1.2, day.overdue ? Qt::SolidLine : Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(rect, 3, 3);
    painter.setPen(c.ink);
    painter.setFont(textFont(smallText, day.overdue ? QFont::DemiBold : QFont::Normal));
    painter.drawText(rect.adjusted(6, 3, -2, 0), Qt::AlignLeft | Qt::AlignTop, day.title);
    painter.setFont(textFont(smallText));
    painter.setPen(c.quiet);
    painter.drawText(rect.adjusted(6, 3 + line, -2, 0), Qt::AlignLeft | Qt::AlignTop,
                     day.overdue ? say("overdue") : day.since);
    const int fitting = static_cast<int>((rect.width() - 12) / markStep);
    const int count = static_cast<int>(day.marks.size());
    const double y = rect.bottom() - line / 2 - 3;
    if (count > fitting) {
        painter.drawText(QRectF(rect.left() + 6, y - line / 2, rect.width() - 8, line), Qt::AlignLeft,
                         sayMany("{count} mount", "{count} mounts", count));
        return;
    }
    for (int i = 0; i < count; ++i) {
        const QPointF centre(rect.left() + 12 + i * markStep, y);
        if (const auto kind = day.marks[static_cast<std::size_t>(i)])
            paintClassMark(painter, *kind, centre, 4.5, c.quiet);
        else
            painter.drawEllipse(centre, 3, 3);
    }
}

void LaterDays::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(smallText));
    painter.setPen(colours().quiet);
    const int last = std::min(itemCount(), first_ + shown());
    for (int i = first_; i < last; ++i) {
        const QRectF rect((i - first_) * tileWidth() + 1, 3, tileWidth() - 8, height() - 8);
        paintDay(painter, rect, i);
        if (!showsFocus(i)) continue;
        painter.setPen(QPen(colours().cold, 1.5, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(rect.adjusted(2, 2, -2, -2), 3, 3);
    }
    if (last == itemCount()) return;
    painter.setPen(colours().quiet);
    painter.drawText(QRectF(last * tileWidth() - first_ * tileWidth(), 0, 200, height()),
                     Qt::AlignLeft | Qt::AlignVCenter, "…");
}

} // namespace ibuki
