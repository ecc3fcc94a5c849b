// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/what_is_this.h"

#include "app/forms/topic.h"
#include "app/forms/topic_sheet.h"
#include "app/forms/widgets.h"

#include <QAbstractButton>
#include <QAbstractSlider>
#include <QApplication>
#include <QComboBox>
#include <QCursor>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMouseEvent>

namespace ibuki {
namespace {

constexpr int holdMs = 800;

/// What a held press means something else for.
bool isOperated(const QWidget* widget) {
    return qobject_cast<const QAbstractButton*>(widget) || qobject_cast<const QLineEdit*>(widget)
           || qobject_cast<const QAbstractSlider*>(widget) || qobject_cast<const QComboBox*>(widget);
}

} // namespace

WhatIsThis::WhatIsThis(QObject* parent) : QObject(parent) {
    held_.setSingleShot(true);
    held_.setInterval(holdMs);
    connect(&held_, &QTimer::timeout, this, [this] {
        if (pressed_) openFor(pressed_);
    });
    QApplication::instance()->installEventFilter(this);
}

QWidget* WhatIsThis::meant(QWidget* focused) {
    QWidget* under = QApplication::widgetAt(QCursor::pos());
    if (under && ownTopic(under)) return under;
    return topicOf(focused) ? focused : under;
}

void WhatIsThis::openFor(QWidget* widget) {
    QWidget* in = widget ? widget->window() : QApplication::activeWindow();
    openDialog(new TopicSheet(topicOf(widget).value_or(topics().front().topic), in));
    emit asked();
}

void WhatIsThis::hold(QWidget* widget, const QPoint& at) {
    if (!topicOf(widget) || isOperated(widget)) return;
    pressed_ = widget;
    at_ = at;
    held_.start();
}

bool WhatIsThis::eventFilter(QObject* watched, QEvent* event) {
    auto* widget = qobject_cast<QWidget*>(watched);
    if (!widget) return false;
    switch (event->type()) {
    case QEvent::KeyPress:
        if (static_cast<QKeyEvent*>(event)->key() != Qt::Key_F1) break;
        if (!qobject_cast<TopicSheet*>(widget->window())) openFor(meant(widget)); // else it is being told
        return true;
    case QEvent::MouseButtonPress:
        if (static_cast<QMouseEvent*>(event)->button() == Qt::LeftButton)
            hold(widget, static_cast<QMouseEvent*>(event)->globalPosition().toPoint());
        break;
    case QEvent::MouseMove: {
        const QPoint now = static_cast<QMouseEvent*>(event)->globalPosition().toPoint();
        if ((now - at_).manhattanLength() > QApplication::startDragDistance()) held_.stop();
        break;
    }
    case QEvent::MouseButtonRelease:
    case QEvent::MouseButtonDblClick:
        held_.stop();
        break;
    default:
        break;
    }
    return false;
}

} // namespace ibuki
