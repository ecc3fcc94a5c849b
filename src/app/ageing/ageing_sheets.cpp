// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/ageing_sheets.h"

#include "app/forms/dialog_buttons.h"
#include "app/forms/entity_form.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {
AgeingRulesSheet::AgeingRulesSheet(Session& session, Id<AgeingRules> rules, QWidget* parent)
    : QDialog(parent) {
    setWindowTitle(say("What a change is that matters"));
    explain(this, Topic::ageing);
    resize(520, 360);
    auto* layout = new QVBoxLayout(this);
    auto* rows = new QFormLayout;
    layout->addLayout(rows);
    auto form = std::make_shared<EntityForm<AgeingRules>>(session, rows, words::mark("rules of drift"));
    const auto kelvin = [&](const QString& label, Kelvin AgeingRules::*member) {
        form->requiredNumber(
            label, [member](const AgeingRules& of) { return (of.*member).value; },
            [member](AgeingRules& of, double value) { of.*member = Kelvin{value}; }, 0, true, 1'000);
    };
    kelvin(say("Made anew at a rise of, K"), &AgeingRules::threshold);
    kelvin(say("A change is none within ±, K"), &AgeingRules::sameWithin);
    kelvin(say("Settled when less is left than, K"), &AgeingRules::settledWithin);
    form->number(say("Usual time between applications, years"), &AgeingRules::typicalYears, 0, true);
    form->number(say("Hands for one, min"), &AgeingRules::manualMinutes, 0, true);
    form->number(say("An hour of hands costs"), &AgeingRules::hourRate, 0);
    form->text(say("in the currency"), &AgeingRules::currency);
    follow(*this, session, rules, form);
    layout->addWidget(quietLabel(say("What was measured of a material goes before a usual time.")));
    layout->addStretch(1);
    layout->addWidget(closeButton(this));
}

MountUseSheet::MountUseSheet(Session& session, Id<MountUse> use, QWidget* parent) : QDialog(parent) {
    setWindowTitle(say("How it is used between recordings"));
    explain(this, Topic::ageing);
    resize(520, 400);
    auto* layout = new QVBoxLayout(this);
    auto* rows = new QFormLayout;
    layout->addLayout(rows);
    auto form = std::make_shared<EntityForm<MountUse>>(session, rows, words::mark("use of a mount"));
    form->date(say("From (empty: since it was mounted)"), &MountUse::from);
    form->date(say("Until (empty: until it is opened)"), &MountUse::until);
    form->requiredNumber(
        say("Hours under load a day"), [](const MountUse& of) { return of.hoursPerDay; },
        [](MountUse& of, double value) { of.hoursPerDay = value; }, 0, false, 24);
    form->number(say("Power, W"), &MountUse::power, 0, true);
    form->requiredNumber(
        say("Warm and cold again, times a day"), [](const MountUse& of) { return of.cyclesPerDay; },
        [](MountUse& of, double value) { of.cyclesPerDay = value; }, 0, false, 100'000);
    form->number(say("Hottest chip, °C"), &MountUse::hottest);
    form->number(say("Coldest, °C"), &MountUse::coldest);
    form->text(say("In words"), &MountUse::note)->setPlaceholderText(say("office"));
    follow(*this, session, use, form);
    layout->addWidget(quietLabel(say("Its clocks count what was recorded and what stands here.")));
    layout->addStretch(1);
    auto* foot = new QHBoxLayout;
    auto* another = button(say("Another stretch"), say("A different use, before or after this one"));
    auto* remove = button(say("Remove this one"));
    foot->addWidget(another);
    foot->addWidget(remove);
    foot->addStretch(1);
    foot->addWidget(closeButton(this));
    layout->addLayout(foot);
    connect(remove, &QPushButton::clicked, this, [&session, use] {
        Edit edit(session.document(), titled("Remove a stated use"));
        edit.remove(use);
        session.perform(edit.finish());
    });
    connect(another, &QPushButton::clicked, this, [this, &session, use] {
        const MountUse* of = session.document().find(use);
        if (!of) return;
        MountUse next;
        next.mount = of->mount;
        next.from = of->until;
        Edit edit(session.document(), titled("State another stretch of use"));
        const Id<MountUse> id = edit.add(next);
        if (!session.perform(edit.finish())) return;
        openDialog(new MountUseSheet(session, id, parentWidget()));
        accept();
    });
}

OutcomeSheet::OutcomeSheet(Session& session, Id<Mount> mount, QWidget* parent)
    : QDialog(parent),
      session_(session),
      mount_(mount),
      kind_(new QComboBox),
      happened_(new QComboBox),
      at_(new QLineEdit),
      coldest_(new QLineEdit),
      cycles_(new QLineEdit),
      note_(new QLineEdit) {
    const Mount* of = session.document().find(mount);
    setWindowTitle(say("What happened to %1").arg(of ? qtext(of->name) : QString()));
    explain(this, Topic::ageing);
    resize(460, 320);
    for (const std::string_view one : Words<OutcomeKind>::all) kind_->addItem(sayTerm(one));
    happened_->addItems({say("it happened"), say("it was looked for and had not")});
    at_->setPlaceholderText(say("2031-03-04 18:30; empty: when it was opened"));
    coldest_->setPlaceholderText(say("not stated"));
    cycles_->setPlaceholderText(say("by its clocks"));
    auto* layout = new QVBoxLayout(this);
    auto* rows = new QFormLayout;
    layout->addLayout(rows);
    addFormRow(rows, say("What"), kind_);
    addFormRow(rows, say("Did it"), happened_);
    addFormRow(rows, say("When"), at_);
    addFormRow(rows, say("Coldest that it saw, °C"), coldest_);
    addFormRow(rows, say("Cycles until then"), cycles_);
    addFormRow(rows, say("Remark"), note_);
    layout->addStretch(1);
    layout->addWidget(dialogButtons(this, say("Keep")));
}

void OutcomeSheet::accept() {
    MountOutcome outcome;
    outcome.mount = mount_;
    outcome.kind = static_cast<OutcomeKind>(kind_->currentIndex());
    outcome.happened = happened_->currentIndex() == 0;
    const QString when = at_->text().trimmed();
    outcome.at = parseInstant(when.toStdString());
    markWrong(at_, !when.isEmpty() && !outcome.at);
    const auto coldest = numberFrom(coldest_->text());
    const auto cycles = numberFrom(cycles_->text());
    markWrong(coldest_, !coldest_->text().trimmed().isEmpty() && !coldest);
    markWrong(cycles_, !cycles_->text().trimmed().isEmpty() && (!cycles || *cycles < 0));
    if (!when.isEmpty() && !outcome.at)
        return session_.refuse(say("A day and a time are written as 2031-03-04 18:30."));
    if ((!coldest_->text().trimmed().isEmpty() && !coldest)
        || (!cycles_->text().trimmed().isEmpty() && (!cycles || *cycles < 0)))
        return session_.refuse(say("That is no number of degrees or cycles."));
    if (coldest) outcome.coldest = Celsius{*coldest};
    outcome.cycles = cycles;
    outcome.note = note_->text().trimmed().toStdString();
    const Mount* of = session_.document().find(mount_);
    if (!of) return QDialog::reject();
    Edit edit(session_.document(), titled("State what happened to {mount}", {{"mount", of->name}}));
    edit.add(outcome);
    if (session_.perform(edit.finish())) QDialog::accept();
}

} // namespace ibuki
