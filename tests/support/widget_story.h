// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What a user does to the window, for tests that drive it: open commands, wait for sheets, type, press,
// answer what is asked.

#include "app/forms/ask.h"
#include "app/forms/sheet_complaint.h"
#include "app/frame/main_window.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
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

/// What the window says in its notice line, or an open sheet beside the field it does not take.
inline QString notice(MainWindow& window) {
    if (QDialog* sheet = openSheet())
        if (auto* why = sheet->findChild<QLabel*>("Complaint")) return why->text();
    auto* label = window.findChild<QLabel*>("Notice");
    return label && label->isVisible() ? label->text() : QString();
}

/// Answers the small sheet that asks. Returns why the answer is not taken; then it stays open.
inline QString answer(const QString& text) {
    auto* asked = sheet<AskSheet>();
    if (!asked) return "nothing is asked";
    auto* field = asked->findChild<QWidget*>("Answer");
    if (auto* line = qobject_cast<QLineEdit*>(field)) {
        line->clear();
        type(line, text);
    } else if (auto* number = qobject_cast<QSpinBox*>(field)) {
        number->setValue(text.toInt());
    } else if (auto* choice = qobject_cast<QComboBox*>(field)) {
        choice->setCurrentIndex(choice->findText(text));
    }
    QTest::mouseClick(asked->findChild<QDialogButtonBox*>()->button(QDialogButtonBox::Ok), Qt::LeftButton);
    const auto* why = asked->findChild<QLabel*>("Complaint");
    return why ? why->text() : QString();
}

/// Leaves the small sheet that asks.
inline bool leaveQuestion() {
    auto* asked = sheet<AskSheet>();
    if (asked) QTest::keyClick(asked, Qt::Key_Escape);
    return asked != nullptr;
}

} // namespace ibuki::story
