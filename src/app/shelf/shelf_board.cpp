// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_board.h"

#include "app/drawn/class_mark_painter.h"
#include "app/drawn/theme.h"
#include "app/drawn/walk.h"
#include "app/say.h"
#include "core/shelf/class_defaults.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace ibuki {
namespace {

/// A tube standing on its cap: what is left is filled from the cap up.
void paintTube(QPainter& painter, const QRectF& box, const ShelfItem& item) {
    const double w = std::min(34.0, box.width() * 0.34);
    const QRectF body(box.center().x() - w / 2, box.top() + 2, w, box.height() - 14);
    QPainterPath path;
    path.moveTo(body.topLeft());
    path.lineTo(body.topRight());
    path.lineTo(body.right() - 2, body.bottom() - 8);
    path.lineTo(body.center().x() + 5, body.bottom());
    path.lineTo(body.center().x() - 5, body.bottom());
    path.lineTo(body.left() + 2, body.bottom() - 8);
    path.closeSubpath();
    painter.save();
    painter.setClipPath(path, Qt::IntersectClip);
    const double filled = item.share.value_or(item.lot ? 1.0 : 0.0) * body.height();
    painter.fillRect(QRectF(body.left(), body.bottom() - filled, w, filled), colours().hotWash);
    painter.restore();
    painter.drawPath(path);
    painter.drawRect(QRectF(body.center().x() - 7, body.bottom(), 14, 11));
}

/// A sheet leaning on the board: the part that is gone is only outlined.
void paintSheet(QPainter& painter, const QRectF& box, const ShelfItem& item) {
    const double h = box.height() - 4;
    const double w = std::min(h * 1.05, box.width() * 0.62);
    const QRectF sheet(box.center().x() - w / 2, box.bottom() - h - 1, w, h);
    const double left = item.share.value_or(item.lot ? 1.0 : 0.0);
    const QRectF rest(sheet.left(), sheet.bottom() - left * h, w, left * h);
    painter.fillRect(rest, colours().coldWash);
    painter.drawRect(rest);
    QPen dashed = painter.pen();
    dashed.setStyle(Qt::DotLine);
    painter.setPen(dashed);
    painter.drawRect(sheet);
}

} // namespace

ShelfBoard::ShelfBoard(QWidget* parent) : DrawnItems(parent) {
    setAccessibleName(say("Lots on the shelf"));
    setObjectName("Lots on the shelf");
}

void ShelfBoard::show(std::vector<ShelfItem> items) {
    items_ = std::move(items);
    chosen_.reset();
    beside_.reset();
    setFocused(focused());
    setMinimumHeight(static_cast<int>(layout().height) + 4);
}

void ShelfBoard::mark(std::optional<std::size_t> chosen, std::optional<std::size_t> beside) {
    chosen_ = chosen;
    beside_ = beside;
    if (chosen && !hasFocus()) setFocused(static_cast<int>(*chosen));
    update();
}

ShelfLayout ShelfBoard::layout() const {
    const double line = fontMetrics().height();
    return layoutShelf(items_.size(), width(), 8.6 * line, 62 + 3.6 * line);
}

void ShelfBoard::paintItem(QPainter& painter, const QRectF& rect, int index) const {
    const ShelfItem& item = items_[static_cast<std::size_t>(index)];
    const Colours& c = colours();
    const auto is = [&](const std::optional<std::size_t>& one) {
        return one && *one == static_cast<std::size_t>(index);
    };
    const QRectF frame = rect.adjusted(3, 3, -3, -6);
    if (is(chosen_) || is(beside_) || index == hovered()) {
        painter.setPen(is(chosen_)   ? QPen(c.ink, 1.5)
                       : is(beside_) ? QPen(c.ink, 1.5, Qt::DashLine)
                                     : Qt::NoPen);
        painter.setBrush(c.band);
        painter.drawRoundedRect(frame, 4, 4);
    }
    if (showsFocus(index)) {
        painter.setPen(QPen(c.cold, 1.5, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(frame.adjusted(2, 2, -2, -2), 3, 3);
    }
    const double line = painter.fontMetrics().height();
    const QRectF box(rect.left() + 8, rect.top() + 8, rect.width() - 16, 54);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(c.ink, 1.3, item.lot ? Qt::SolidLine : Qt::DashLine));
    if (isCut(item.kind))
        paintSheet(painter, box, item);
    else
        paintTube(painter, box, item);
    paintClassMark(painter, item.kind, {box.left() + 8, box.top() + 8}, 4.5, c.quiet);
    if (item.cautions > 0) {
        const bool grave = item.gravest >= CautionSeverity::danger;
        const QRectF flag(box.right() - 24, box.top(), 24, line);
        painter.setPen(grave ? c.hot : c.quiet);
        painter.setFont(textFont(0.9, grave ? QFont::DemiBold : QFont::Normal));
        painter.drawText(flag, Qt::AlignRight | Qt::AlignVCenter, QString("%1!").arg(item.cautions));
    }
    const QRectF words(rect.left() + 7, rect.top() + 64, rect.width() - 14, 3 * line);
    const auto put = [&](int row, const QString& text, const QColor& colour, double size,
                         QFont::Weight weight) {
        painter.setFont(textFont(size, weight));
        painter.setPen(colour);
        painter.drawText(
            QRectF(words.left(), words.top() + row * line, words.width(), line), Qt::AlignCenter,
            painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(words.width())));
    };
    put(0, item.name, c.ink, 0.9, QFont::Medium);
    put(1, item.left, c.ink, 0.85, QFont::Normal);
    put(2, item.age, c.quiet, 0.85, QFont::Normal);
}

void ShelfBoard::paintEvent(QPaintEvent* event) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(textFont(0.9));
    const ShelfLayout at = layout();
    const auto columns = static_cast<std::size_t>(at.columns);
    const auto first =
        static_cast<std::size_t>(std::max(0.0, std::floor(event->rect().top() / at.rowHeight)));
    const auto last = static_cast<std::size_t>(event->rect().bottom() / at.rowHeight) + 1;
    for (std::size_t row = first; row < last && row * columns < items_.size(); ++row) {
        const double y = static_cast<double>(row + 1) * at.rowHeight - 3;
        painter.setPen(QPen(colours().line, 3));
        painter.drawLine(QPointF(0, y), QPointF(width(), y));
        for (std::size_t i = row * columns; i < std::min(items_.size(), (row + 1) * columns); ++i)
            paintItem(painter, at.at(i), static_cast<int>(i));
    }
}

void ShelfBoard::resizeEvent(QResizeEvent*) { setMinimumHeight(static_cast<int>(layout().height) + 4); }

void ShelfBoard::mousePressEvent(QMouseEvent* event) {
    const int item = itemAt(event->position());
    if (item >= 0 && event->button() == Qt::LeftButton && event->modifiers() & Qt::ControlModifier) {
        setFocused(item);
        emit setBeside(item);
        return;
    }
    DrawnItems::mousePressEvent(event);
}

void ShelfBoard::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && itemCount() > 0)
        emit setBeside(focused());
    else
        DrawnItems::keyPressEvent(event);
}

int ShelfBoard::itemAt(const QPointF& point) const { return layout().indexAt(point.x(), point.y()); }
QString ShelfBoard::tip(int item) const {
    return items_.at(static_cast<std::size_t>(item)).tip
           + say("\nSpace or Ctrl+click sets it beside the chosen one");
}

void ShelfBoard::openItem(int item) { emit chosen(item); }

std::optional<int> ShelfBoard::stepped(const QKeyEvent& event) const {
    const int columns = layout().columns;
    if (event.key() == Qt::Key_Up) return focused() >= columns ? focused() - columns : focused();
    if (event.key() == Qt::Key_Down)
        return focused() + columns < itemCount() ? focused() + columns : focused();
    return walked(event, Qt::Horizontal, focused(), itemCount());
}

void ShelfBoard::bringIntoView(int item) {
    emit wantsVisible(layout().at(static_cast<std::size_t>(item)).toAlignedRect());
}

} // namespace ibuki
