// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/entity_form.h"

#include <QFocusEvent>
#include <QLocale>

namespace ibuki {

std::optional<double> numberFrom(const QString& text) {
    QString plain = text.trimmed();
    plain.replace(',', '.');
    bool ok = false;
    const double value = QLocale::c().toDouble(plain, &ok);
    if (!ok || !qIsFinite(value)) return std::nullopt;
    return value;
}

QString numberText(double value) { return QLocale::c().toString(value, 'g', QLocale::FloatingPointShortest); }

void markWrong(QLineEdit* field, bool wrong) {
    if (field->property("wrong").toBool() == wrong) return;
    field->setProperty("wrong", wrong);
    field->style()->unpolish(field);
    field->style()->polish(field);
}

NoteField::NoteField(int lines, QWidget* parent) : QPlainTextEdit(parent), lines_(lines) {
    setTabChangesFocus(true);
    fitLines();
}

void NoteField::fitLines() { setFixedHeight(fontMetrics().lineSpacing() * lines_ + 18); }

void NoteField::changeEvent(QEvent* event) {
    QPlainTextEdit::changeEvent(event);
    if (event->type() == QEvent::FontChange) fitLines();
}

void NoteField::show(const QString& text) {
    shown_ = text;
    setPlainText(text);
}

void NoteField::focusOutEvent(QFocusEvent* event) {
    QPlainTextEdit::focusOutEvent(event);
    if (toPlainText() == shown_) return;
    shown_ = toPlainText();
    emit edited(shown_);
}

} // namespace ibuki
