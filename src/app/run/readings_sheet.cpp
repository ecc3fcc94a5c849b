// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/readings_sheet.h"

#include "app/forms/dialog_buttons.h"
#include "app/forms/entity_form.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/import/entered_reading.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {

ReadingsSheet::ReadingsSheet(Session& session, Id<Run> run, QWidget* parent)
    : QDialog(parent), session_(session), run_(run), table_(new QTableWidget(0, 5)) {
    const Run* of = session.document().find(run);
    const Mount* mount = of ? session.document().find(of->mount) : nullptr;
    setWindowTitle(say("Readings"));
    resize(680, 420);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(
        cardTitle(mount ? say("Read at %1, beside the sensors").arg(qtext(mount->name)) : say("Readings")));
    table_->setAccessibleName(say("Readings of the run"));
    table_->setHorizontalHeaderLabels({say("What"), say("Value"), say("Unit"), say("Better"), say("Note")});
    table_->setSelectionBehavior(QTableWidget::SelectRows);
    table_->setEditTriggers(QTableWidget::NoEditTriggers);
    table_->setTabKeyNavigation(false);
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setSectionResizeMode(4, QHeaderView::Stretch);
    layout->addWidget(table_, 1);
    layout->addWidget(makeEntry());
    auto* remove = button(say("Remove"), say("The chosen reading"));
    connect(remove, &QPushButton::clicked, this, &ReadingsSheet::remove);
    auto* foot = new QHBoxLayout;
    foot->addWidget(remove);
    foot->addStretch(1);
    foot->addWidget(closeButton(this));
    layout->addLayout(foot);
    connect(&session, &Session::documentChanged, this, &ReadingsSheet::fill);
    fill();
    chooseKind();
}

QWidget* ReadingsSheet::makeEntry() {
    kind_ = new QComboBox;
    for (std::string_view kind : Words<SideResponse>::read) kind_->addItem(sayTerm(kind));
    better_ = new QComboBox;
    for (std::string_view better : Words<Better>::all) better_->addItem(sayTerm(better));
    name_ = new QLineEdit;
    value_ = new QLineEdit;
    unit_ = new QLineEdit;
    note_ = new QLineEdit;
    auto* form = new QFormLayout;
    form->setContentsMargins(14, 8, 14, 8);
    addFormRow(form, say("What"), kind_);
    addFormRow(form, say("Its name"), name_);
    auto* number = new QHBoxLayout;
    number->addWidget(value_, 2);
    number->addWidget(unit_, 1);
    number->addWidget(better_, 1);
    auto* line = new QWidget;
    number->setContentsMargins(0, 0, 0, 0);
    line->setLayout(number);
    form->addRow(say("Value, unit, which is better"), line);
    value_->setAccessibleName(say("Value"));
    value_->setObjectName("Value");
    unit_->setAccessibleName(say("Unit"));
    better_->setAccessibleName(say("Better"));
    addFormRow(form, say("Note"), note_);
    auto* put = button(say("Add"), say("Return"), true);
    form->addRow(QString(), put);
    connect(put, &QPushButton::clicked, this, &ReadingsSheet::add);
    for (QLineEdit* field : {name_, value_, unit_, note_}) {
        field->setProperty("returnIsTaken", true);
        connect(field, &QLineEdit::returnPressed, this, &ReadingsSheet::add);
    }
    connect(kind_, &QComboBox::currentIndexChanged, this, &ReadingsSheet::chooseKind);
    return card(form);
}

SideResponse ReadingsSheet::chosenKind() const {
    return static_cast<SideResponse>(kind_->currentIndex() + static_cast<int>(firstRead));
}

void ReadingsSheet::chooseKind() {
    const auto kind = chosenKind();
    const ResponseUsage usage = typicalOf(kind);
    unit_->setText(QString::fromUtf8(usage.unit));
    better_->setCurrentIndex(static_cast<int>(usage.better));
    name_->setEnabled(kind == SideResponse::other);
    if (kind != SideResponse::other) name_->clear();
}

void ReadingsSheet::fill() {
    const auto readings = session_.document().where(&EnteredReading::run, run_);
    table_->setRowCount(static_cast<int>(readings.size()));
    int row = 0;
    for (const EnteredReading* reading : readings) {
        const QString name =
            reading->kind == SideResponse::other ? qtext(reading->name) : sayTerm(word(reading->kind));
        int column = 0;
        for (const QString& text : {name, numberText(reading->value), qtext(reading->unit),
                                    sayTerm(word(reading->better)), qtext(reading->note)})
            table_->setItem(row, column++, fixedItem(text));
        table_->item(row, 0)->setData(Qt::UserRole, qlonglong(reading->id.value));
        ++row;
    }
}

void ReadingsSheet::add() {
    const auto value = numberFrom(value_->text());
    if (!value) {
        value_->setFocus();
        session_.refuse(say("\"%1\" is no number. Write digits, such as 21.5.").arg(value_->text()));
        return;
    }
    EnteredReading reading;
    reading.run = run_;
    reading.kind = chosenKind();
    reading.name = name_->text().trimmed().toStdString();
    if (reading.kind == SideResponse::other && reading.name.empty()) {
        name_->setFocus();
        session_.refuse(say("Say what it is."));
        return;
    }
    reading.value = *value;
    reading.unit = unit_->text().trimmed().toStdString();
    reading.better = static_cast<Better>(better_->currentIndex());
    reading.at = session_.now();
    reading.note = note_->text().trimmed().toStdString();
    Edit edit(session_.document(), titled("Add a reading"));
    edit.add(reading);
    if (!session_.perform(edit.finish())) return;
    value_->clear();
    note_->clear();
    value_->setFocus();
}

void ReadingsSheet::remove() {
    const QTableWidgetItem* item = table_->item(table_->currentRow(), 0);
    if (!item) return;
    Edit edit(session_.document(), titled("Remove a reading"));
    edit.remove(Id<EnteredReading>{item->data(Qt::UserRole).toLongLong()});
    session_.perform(edit.finish());
}

} // namespace ibuki
