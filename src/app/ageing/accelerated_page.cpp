// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/accelerated_page.h"

#include "app/ageing/ageing_lines.h"
#include "app/drawn/theme.h"
#include "app/forms/entity_form.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "store/paper/ageing_csv.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {

AcceleratedPage::AcceleratedPage(QWidget* parent)
    : ExportedPage(say("Harder test"), parent), by_(new QComboBox), reported_(new QLabel) {
    explain(this, Topic::ageing);
    by_->addItems(
        {say("Heat (Arrhenius)"), say("Swings (Coffin–Manson)"), say("Swings of solder (Norris–Landzberg)")});
    reported_->setWordWrap(true);
    reported_->setObjectName("Harder told");
    reported_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    reported_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    setTextFont(reported_, 1.1);

    auto* form = new QFormLayout;
    addFormRow(form, say("What does the harm"), by_);
    addField(form, say("Years of use to stand for"), &years_, 10);
    heatRows_ << addField(form, say("Activation energy, eV"), &asked_.activationEv, asked_.activationEv);
    swingRows_ << addField(form, say("Exponent of the swing"), &asked_.exponent, asked_.exponent);
    solderRows_ << addField(form, say("Exponent of the swing (solder)"), &asked_.solder.swingExponent, 1.9)
                << addField(form, say("Exponent of the frequency"), &asked_.solder.frequencyExponent, 1.0 / 3)
                << addField(form, say("Energy over k, K"), &asked_.solder.perKelvin, 1'414);
    const auto side = [&](const QString& name, Cycling* cycling, double* hours, double begin) {
        auto* column = new QFormLayout;
        QWidget* hottest = addField(column, say("%1: hottest, °C").arg(name), &cycling->hottest.value,
                                    cycling->hottest.value);
        heatRows_ << addField(column, say("%1: hours hot a day").arg(name), hours, begin);
        const QList<QWidget*> swings{
            addField(column, say("%1: swing, K").arg(name), &cycling->swing.value, cycling->swing.value),
            addField(column, say("%1: cycles a day").arg(name), &cycling->perDay, cycling->perDay)};
        swingRows_ << swings;
        solderRows_ << hottest << swings;
        heatRows_ << hottest;
        return column;
    };
    auto* sides = new QHBoxLayout;
    sides->addLayout(side(say("Use"), &asked_.use, &asked_.useHoursPerDay, asked_.useHoursPerDay));
    sides->addSpacing(20);
    sides->addLayout(side(say("Test"), &asked_.test, &asked_.testHoursPerDay, asked_.testHoursPerDay));
    sides->addStretch(1);
    auto* left = new QVBoxLayout;
    left->addLayout(form);
    left->addSpacing(10);
    left->addLayout(sides);
    left->addStretch(1);
    auto* inside = new QWidget;
    inside->setLayout(left);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scrolledWidget(inside), 5);
    layout->addSpacing(14);
    layout->addWidget(reported_, 4);
    connect(by_, &QComboBox::activated, this, [this] { tell(); });
    tell();
}

QLineEdit* AcceleratedPage::addField(QFormLayout* form, const QString& label, double* value, double begin) {
    auto* field = new QLineEdit(numberText(begin));
    addFormRow(form, label, field);
    connect(field, &QLineEdit::textChanged, this, [this, field, value](const QString& text) {
        const auto number = numberFrom(text);
        markWrong(field, !number);
        if (!number) return;
        *value = *number;
        tell();
    });
    field->setProperty("form", QVariant::fromValue<void*>(form));
    return field;
}

void AcceleratedPage::tell() {
    asked_.by = static_cast<WearBy>(by_->currentIndex());
    const QList<QWidget*> all = heatRows_ + swingRows_ + solderRows_;
    const QList<QWidget*>& wanted = asked_.by == WearBy::heat     ? heatRows_
                                    : asked_.by == WearBy::swings ? swingRows_
                                                                  : solderRows_;
    for (QWidget* field : all) {
        auto* form = static_cast<QFormLayout*>(field->property("form").value<void*>());
        field->setVisible(wanted.contains(field));
        if (QWidget* label = form->labelForField(field)) label->setVisible(wanted.contains(field));
    }
    reported_->setText(acceleratedLines(asked_, years_).join("\n\n"));
}

std::string AcceleratedPage::csv() const {
    const auto made = testFor(asked_, years_);
    return made ? acceleratedCsv(*made, years_) : std::string();
}

} // namespace ibuki
