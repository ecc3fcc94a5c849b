// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/rates_sheet.h"

#include "app/forms/number_field.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/shelf_items.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QVBoxLayout>

namespace ibuki {

RatesSheet::RatesSheet(Session& session, QWidget* parent)
    : QDialog(parent),
      session_(session),
      rates_(new QListWidget),
      from_(new QLineEdit),
      to_(new QLineEdit),
      rate_(new NumberField(say("Rate"), {0, true})) {
    setWindowTitle(say("Rates"));
    resize(460, 320);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(
        quietLabel(say("Amounts in different currencies are never added without a rate from you.")));
    rates_->setAccessibleName(say("Rates"));
    layout->addWidget(rates_, 1);
    auto* row = new QHBoxLayout;
    const auto field = [&](QLineEdit* line, const QString& name, const QString& hint) {
        line->setAccessibleName(name);
        line->setObjectName(name);
        line->setPlaceholderText(hint);
        row->addWidget(line);
    };
    row->addWidget(new QLabel("1"));
    field(from_, say("From currency"), "EUR");
    row->addWidget(new QLabel("="));
    field(rate_, say("Rate"), "11.6");
    field(to_, say("To currency"), "NOK");
    to_->setText(qtext(mainCurrency(session.document())));
    auto* add = button(say("Add rate"));
    add->setDefault(true);
    connect(add, &QPushButton::clicked, this, &RatesSheet::add);
    row->addWidget(add);
    layout->addLayout(row);
    auto* last = new QHBoxLayout;
    auto* gone = button(say("Remove rate"));
    gone->setAutoDefault(false);
    connect(gone, &QPushButton::clicked, this, &RatesSheet::remove);
    auto* close = button(say("Close"), {}, true);
    close->setAutoDefault(false);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    last->addWidget(gone);
    last->addStretch(1);
    last->addWidget(close);
    layout->addLayout(last);
    connect(&session_, &Session::documentChanged, this, &RatesSheet::list);
    list();
}

void RatesSheet::list() {
    rates_->clear();
    for (const auto& [id, rate] : session_.document().all<ExchangeRate>())
        (new QListWidgetItem(QString("1 %1 = %2 %3").arg(qtext(rate.from)).arg(rate.rate).arg(qtext(rate.to)),
                             rates_))
            ->setData(Qt::UserRole, static_cast<qlonglong>(id.value));
}

void RatesSheet::add() {
    ExchangeRate rate;
    rate.from = from_->text().trimmed().toStdString();
    rate.to = to_->text().trimmed().toStdString();
    if (rate.from.empty() || rate.to.empty() || rate.from == rate.to || !rate_->value()) {
        session_.refuse(
            say("A rate needs two different currencies and a number above 0, such as 1 EUR = 11.6 NOK."));
        return;
    }
    rate.rate = *rate_->value();
    Edit edit(session_.document(), titled("Add a rate"));
    for (const auto& [id, known] : session_.document().all<ExchangeRate>())
        if ((known.from == rate.from && known.to == rate.to)
            || (known.from == rate.to && known.to == rate.from))
            edit.remove(id); // one rate a pair
    edit.add(rate);
    if (session_.perform(edit.finish())) from_->clear();
}

void RatesSheet::remove() {
    const QListWidgetItem* item = rates_->currentItem();
    if (!item) return;
    Edit edit(session_.document(), titled("Remove a rate"));
    edit.remove(Id<ExchangeRate>{item->data(Qt::UserRole).toLongLong()});
    session_.perform(edit.finish());
}

} // namespace ibuki
