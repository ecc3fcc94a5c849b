// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/drawn_items.h"

#include "app/drawn/walk.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QToolTip>
#include <utility>

namespace ibuki {

DrawnItems::DrawnItems(QWidget* parent) : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

std::optional<int> DrawnItems::stepped(const QKeyEvent& event) const {
    return walked(event, Qt::Horizontal, focused_, itemCount());
}

void DrawnItems::bringIntoView(int) {}

void DrawnItems::setFocused(int item) {
    const int before = std::exchange(focused_, std::clamp(item, 0, std::max(0, itemCount() - 1)));
    if (itemCount() > 0) setAccessibleDescription(tip(focused_));
    update();
    if (focused_ != before) emit focusedChanged(focused_);
}

void DrawnItems::mouseMoveEvent(QMouseEvent* event) {
    const int item = itemAt(event->position());
    if (item == hovered_) return;
    hovered_ = item;
    update();
}

void DrawnItems::leaveEvent(QEvent*) {
    hovered_ = -1;
    update();
}

void DrawnItems::mousePressEvent(QMouseEvent* event) {
    const int item = itemAt(event->position());
    if (event->button() != Qt::LeftButton || item < 0) return;
    setFocused(item);
    openItem(item);
}

void DrawnItems::keyPressEvent(QKeyEvent* event) {
    if (opens(*event) && itemCount() > 0) {
        openItem(focused_);
    } else if (const auto next = stepped(*event)) {
        setFocused(*next);
        bringIntoView(focused_);
    } else {
        QWidget::keyPressEvent(event);
    }
}

bool DrawnItems::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) return QWidget::event(event);
    auto* help = static_cast<QHelpEvent*>(event);
    const int item = itemAt(help->pos());
    QToolTip::showText(help->globalPos(), item < 0 ? QString() : tip(item));
    return true;
}

} // namespace ibuki
