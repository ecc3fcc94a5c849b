// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/package_sheet.h"

#include "app/forms/number_field.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/shelf_items.h"
#include "core/domain/words.h"

#include <QComboBox>
#include <QFormLayout>
#include <QVBoxLayout>

namespace ibuki {

PackageSheet::PackageSheet(Session& session, Id<Material> material, std::optional<Id<Package>> package,
                           QWidget* parent)
    : QDialog(parent),
      session_(session),
      material_(material),
      package_(package),
      content_(new NumberField(say("Content"), {0, true})),
      unit_(new QComboBox),
      price_(new NumberField(say("Price"), {0, false})),
      currency_(new QLineEdit),
      note_(new QLineEdit) {
    setWindowTitle(say("Package"));
    auto* layout = new QVBoxLayout(this);
    auto* form = new QFormLayout;
    layout->addLayout(form);
    for (std::string_view unit : Words<ContentUnit>::all) unit_->addItem(sayTerm(unit));
    addFormRow(form, say("Content"), content_);
    addFormRow(form, say("Unit"), unit_);
    addFormRow(form, say("Price"), price_);
    addFormRow(form, say("Currency"), currency_);
    addFormRow(form, say("Remarks"), note_);
    currency_->setText(qtext(mainCurrency(session.document())));
    if (const Package* shown = session.document().find(package)) {
        content_->show(shown->content);
        unit_->setCurrentIndex(static_cast<int>(shown->unit));
        price_->show(shown->price);
        currency_->setText(qtext(shown->currency));
        note_->setText(qtext(shown->note));
    }
    auto* keep = button(say("Keep"), {}, true);
    connect(keep, &QPushButton::clicked, this, &QDialog::accept);
    keep->setDefault(true);
    layout->addWidget(keep, 0, Qt::AlignRight);
}

void PackageSheet::accept() {
    for (const NumberField* field : {content_, price_})
        if (!field->value()) {
            session_.refuse(field->complaint());
            return;
        }
    if (currency_->text().trimmed().isEmpty()) {
        session_.refuse(say("A price needs its currency. Write it beside the price, such as NOK."));
        return;
    }
    Edit edit(session_.document(),
              titled(package_ ? words::mark("Change a package") : words::mark("Add a package")));
    const Package* before = session_.document().find(package_);
    Package package = before ? *before : Package{};
    package.material = material_;
    package.content = *content_->value();
    package.unit = static_cast<ContentUnit>(unit_->currentIndex());
    package.price = *price_->value();
    package.currency = currency_->text().trimmed().toStdString();
    package.note = note_->text().trimmed().toStdString();
    if (before)
        edit.put(package);
    else
        edit.add(package);
    if (session_.perform(edit.finish())) QDialog::accept();
}

} // namespace ibuki
