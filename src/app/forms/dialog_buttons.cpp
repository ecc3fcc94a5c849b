// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/dialog_buttons.h"

#include "app/say.h"

#include <QAbstractSpinBox>
#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPushButton>

namespace ibuki {

namespace {

bool isField(const QWidget* widget) {
    return qobject_cast<const QLineEdit*>(widget) || qobject_cast<const QComboBox*>(widget)
           || qobject_cast<const QAbstractSpinBox*>(widget);
}

/// The next field of the sheet; nothing behind the last one.
QWidget* fieldAfter(QWidget* field, const QDialog& dialog) {
    for (QWidget* next = field->nextInFocusChain(); next != field; next = next->nextInFocusChain()) {
        if (next == &dialog || qobject_cast<QDialogButtonBox*>(next->parentWidget())) return nullptr;
        const bool takesKeys = (next->focusPolicy() & Qt::TabFocus) && next->isVisible() && next->isEnabled();
        if (takesKeys && isField(next)) return next;
    }
    return nullptr;
}

/// Return goes on to the next field; from the last one, and with Ctrl from any, it accepts.
class ReturnGoesOn : public QObject {
public:
    explicit ReturnGoesOn(QDialog* dialog) : QObject(dialog), dialog_(dialog) {
        dialog->installEventFilter(this); // a field leaves Return to its sheet
    }
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() != QEvent::KeyPress) return false;
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->key() != Qt::Key_Return && key->key() != Qt::Key_Enter) return false;
        if (key->modifiers() & Qt::ControlModifier) {
            dialog_->accept();
            return true;
        }
        auto* line = qobject_cast<QLineEdit*>(dialog_->focusWidget());
        if (!line || line->property("returnIsTaken").toBool()) return false;
        QWidget* next = fieldAfter(line, *dialog_);
        if (!next) return false;
        next->setFocus(Qt::TabFocusReason);
        return true;
    }

private:
    QDialog* dialog_;
};

} // namespace

QWidget* dialogButtons(QDialog* dialog, const QString& acceptText) {
    auto* box = new QDialogButtonBox;
    auto* accept = box->addButton(acceptText, QDialogButtonBox::AcceptRole);
    accept->setProperty("main", true);
    accept->setObjectName("accept");
    box->addButton(say("Leave"), QDialogButtonBox::RejectRole);
    QObject::connect(box, &QDialogButtonBox::accepted, dialog, &QDialog::accept);
    QObject::connect(box, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    new ReturnGoesOn(dialog);
    return box;
}

QPushButton* closeButton(QDialog* dialog) {
    auto* close = new QPushButton(say("Close"));
    close->setProperty("main", true);
    QObject::connect(close, &QPushButton::clicked, dialog, &QDialog::accept);
    return close;
}

} // namespace ibuki
