// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a user does to the window, for tests that drive it: open commands, wait for sheets, type, press,
// answer a question that pops up.

#include "app/frame/main_window.h"

#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>
#include <QtTest>

namespace ibuki::story {

/// The visible sheet of that kind, waited for; nullptr when none comes.
template <class W> W* sheet() {
    for (int i = 0; i < 200; ++i) {
        for (QWidget* widget : QApplication::topLevelWidgets())
            if (auto* found = qobject_cast<W*>(widget); found && found->isVisible()) return found;
        QTest::qWait(20);
    }
    return nullptr;
}

inline bool trigger(MainWindow& window, const QString& command) {
    for (QAction* action : window.actions())
        if (action->text() == command) {
            action->trigger();
            return true;
        }
    return false;
}

inline void type(QWidget* field, const QString& text) {
    field->activateWindow();
    field->setFocus();
    QTest::qWait(40); // a focus that comes late would select the text again
    if (auto* line = qobject_cast<QLineEdit*>(field)) line->selectAll();
    QTest::keyClicks(field, text);
}

/// The visible widget that bears this name, as an object or to a screen reader.
template <class W> W* visible(QWidget& in, const QString& name) {
    for (W* widget : in.findChildren<W*>())
        if (widget->isVisible() && (widget->objectName() == name || widget->accessibleName() == name))
            return widget;
    return nullptr;
}

inline bool press(QWidget& in, const QString& name) {
    auto* button = visible<QPushButton>(in, name);
    if (button) QTest::mouseClick(button, Qt::LeftButton);
    return button != nullptr;
}

inline QString notice(MainWindow& window) {
    auto* label = window.findChild<QLabel*>("Notice");
    return label && label->isVisible() ? label->text() : QString();
}

/// Types into the next question that pops up, or leaves it.
inline void answerNext(QObject* context, const QString& text, bool accept = true) {
    QTimer::singleShot(50, context, [text, accept] {
        for (QWidget* widget : QApplication::topLevelWidgets())
            if (auto* dialog = qobject_cast<QInputDialog*>(widget)) {
                if (dialog->inputMode() == QInputDialog::IntInput)
                    dialog->setIntValue(text.toInt());
                else
                    dialog->setTextValue(text);
                accept ? dialog->accept() : dialog->reject();
            }
    });
}

} // namespace ibuki::story
