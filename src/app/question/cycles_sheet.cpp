// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/cycles_sheet.h"

#include "app/forms/dialog_buttons.h"
#include "app/forms/entity_form.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/plan.h"

#include <QFormLayout>
#include <QVBoxLayout>

namespace ibuki {

CyclesSheet::CyclesSheet(Session& session, Id<ProtocolStep> step, QWidget* parent) : QDialog(parent) {
    setWindowTitle(say("Cycles of conditioning"));
    resize(440, 240);
    auto* layout = new QVBoxLayout(this);
    auto* rows = new QFormLayout;
    layout->addLayout(rows);
    auto form = std::make_shared<EntityForm<ProtocolStep>>(session, rows, words::mark("protocol step"));
    form->requiredNumber(
        say("Cycles before its long load"), [](const ProtocolStep& of) { return of.cycles; },
        [](ProtocolStep& of, double count) { of.cycles = static_cast<int>(count); }, 0, false, 1'000);
    form->number(say("Heat the chip to, °C"), &ProtocolStep::hot)
        ->setToolTip(say("Empty: for the minutes of the step"));
    form->number(say("Let it cool to, °C"), &ProtocolStep::cold)
        ->setToolTip(say("Empty: for the minutes of the step"));
    form->show(step);
    connect(&session, &Session::documentChanged, this, [form, step] { form->show(step); });
    layout->addWidget(
        quietLabel(say("Film needs its joint five kelvin above its melting point, again and again; a "
                       "rest until tomorrow is a step of its own.")));
    layout->addStretch(1);
    layout->addWidget(closeButton(this));
}

} // namespace ibuki
