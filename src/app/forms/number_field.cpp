// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/number_field.h"

#include "app/forms/entity_form.h"
#include "app/say.h"

namespace ibuki {

NumberField::NumberField(const QString& label, Range range, QWidget* parent)
    : QLineEdit(parent), label_(label), range_(range) {
    setAccessibleName(label);
    setObjectName(label);
    connect(this, &QLineEdit::textEdited, this, [this] {
        markWrong(this, !value());
        emit valueEdited();
    });
}

std::optional<double> NumberField::value() const {
    const auto number = numberFrom(text());
    const bool fits =
        number && (range_.above ? *number > range_.least : *number >= range_.least) && *number <= range_.most;
    return fits ? number : std::nullopt;
}

void NumberField::show(double value) {
    if (numberFrom(text()) == value) return; // keeps what is being typed as it stands
    setText(numberText(value));
    markWrong(this, !this->value());
}

QString NumberField::complaint() const {
    const QString most = range_.most < 1e299 ? say(" and at most %1").arg(range_.most) : QString();
    return say("%1 must be %2 %3%4.")
        .arg(label_, range_.above ? say("above") : say("at least"), numberText(range_.least), most);
}

} // namespace ibuki
