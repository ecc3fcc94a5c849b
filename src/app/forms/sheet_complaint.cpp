// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/sheet_complaint.h"

#include "app/say.h"

#include <QApplication>
#include <QBoxLayout>
#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressDialog>
#include <algorithm>

namespace ibuki {
namespace {

QWidget* fieldOf(const QDialog& sheet) {
    for (QLineEdit* field : sheet.findChildren<QLineEdit*>())
        if (field->isVisible() && field->property("wrong").toBool()) return field;
    QWidget* focused = sheet.focusWidget();
    const auto* buttons = sheet.findChild<QDialogButtonBox*>();
    return focused && !(buttons && buttons->isAncestorOf(focused)) ? focused : nullptr;
}

/// Puts the label right behind the field in the layout that holds it.
bool putBehind(QLayout& layout, QWidget& field, QLabel& label) {
    if (auto* form = qobject_cast<QFormLayout*>(&layout)) {
        int row = -1;
        QFormLayout::ItemRole role{};
        form->getWidgetPosition(&field, &row, &role);
        if (row < 0) return false;
        form->insertRow(row + 1, &label);
        return true;
    }
    if (auto* box = qobject_cast<QBoxLayout*>(&layout); box && box->direction() == QBoxLayout::TopToBottom) {
        const int index = box->indexOf(&field);
        if (index < 0) return false;
        box->insertWidget(index + 1, &label);
        return true;
    }
    return false;
}

/// Below the row that the field stands in with others.
bool putBelowRow(QLayout& layout, QWidget& field, QLabel& label) {
    auto* box = qobject_cast<QBoxLayout*>(&layout);
    if (!box || box->direction() != QBoxLayout::TopToBottom) return false;
    for (int i = 0; i < box->count(); ++i) {
        QLayout* row = box->itemAt(i)->layout();
        if (!row || row->indexOf(&field) < 0) continue;
        box->insertWidget(i + 1, &label);
        return true;
    }
    return false;
}

bool putBesideField(QDialog& sheet, QWidget& field, QLabel& label) {
    const auto layouts = sheet.findChildren<QLayout*>();
    return std::any_of(layouts.begin(), layouts.end(),
                       [&](QLayout* layout) { return putBehind(*layout, field, label); })
           || std::any_of(layouts.begin(), layouts.end(),
                          [&](QLayout* layout) { return putBelowRow(*layout, field, label); });
}

void putAboveButtons(QDialog& sheet, QLabel& label) {
    auto* box = qobject_cast<QBoxLayout*>(sheet.layout());
    if (!box) return;
    const auto* buttons = sheet.findChild<QDialogButtonBox*>();
    const int at = buttons ? box->indexOf(buttons) : -1;
    box->insertWidget(at >= 0 ? at : box->count(), &label);
}

/// A sentence of several lines needs more room than the layout asks for a label.
void growFor(QDialog& sheet) {
    QLayout* layout = sheet.layout();
    if (!layout) return;
    layout->activate();
    const int wanted = layout->hasHeightForWidth() ? layout->totalHeightForWidth(sheet.width())
                                                   : layout->totalSizeHint().height();
    if (wanted > sheet.height()) sheet.resize(sheet.width(), wanted);
}

} // namespace

QDialog* openSheet() {
    auto* sheet = qobject_cast<QDialog*>(QApplication::activeModalWidget());
    if (qobject_cast<QProgressDialog*>(sheet) || qobject_cast<QFileDialog*>(sheet)) return nullptr;
    return sheet;
}

void complainIn(QDialog& sheet, const QString& why) {
    endComplaint(sheet);
    auto* label = new QLabel(why, &sheet);
    label->setObjectName("Complaint");
    label->setAccessibleName(say("Why it was not taken"));
    label->setProperty("complaint", true);
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    QWidget* field = fieldOf(sheet);
    if (!field || !putBesideField(sheet, *field, *label)) putAboveButtons(sheet, *label);
    label->show();
    growFor(sheet);
    for (QLineEdit* line : sheet.findChildren<QLineEdit*>())
        QObject::connect(line, &QLineEdit::textEdited, label, [&sheet] { endComplaint(sheet); });
    for (QComboBox* box : sheet.findChildren<QComboBox*>())
        QObject::connect(box, &QComboBox::activated, label, [&sheet] { endComplaint(sheet); });
}

void endComplaint(QDialog& sheet) {
    for (QLabel* label : sheet.findChildren<QLabel*>("Complaint")) {
        for (auto* form : sheet.findChildren<QFormLayout*>()) // a form would keep the empty row
            if (form->indexOf(label) >= 0) form->takeRow(label);
        delete label;
    }
}

} // namespace ibuki
