// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/planned_panel.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/widgets.h"
#include "app/recording/card_sheet.h"
#include "app/recording/planned_lines.h"
#include "app/say.h"
#include "app/session/laid_change.h"
#include "core/setup/plan_setup.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {

PlannedPanel::PlannedPanel(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      title_(new QLabel),
      manualWork_(new QLabel),
      when_(quietLabel()),
      steps_(new QLabel),
      cautions_(new QLabel),
      card_(button(say("Card…"), say("The steps of this mount as a big card to print"), true)),
      next_(button(say("Do it next"), say("Out of order: it becomes what to do next"))),
      skip_(button(say("Skip…"), say("With a reason; it can be taken up again on Question, under Order"))),
      done_(button(say("It is done"), say("The later run was recorded"))) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(22, 16, 22, 14);
    setTextFont(title_, 2.2, QFont::DemiBold);
    title_->setObjectName("Planned title");
    setTextFont(manualWork_, 1.7, QFont::Medium);
    manualWork_->setObjectName("Planned hands");
    setTextFont(steps_, 1.15);
    steps_->setObjectName("Planned steps");
    for (QLabel* label : {title_, manualWork_, steps_, cautions_}) label->setWordWrap(true);
    auto* words = new QVBoxLayout;
    for (QLabel* label : {title_, manualWork_, when_}) words->addWidget(label);
    auto* row = new QHBoxLayout;
    row->addWidget(steps_, 1, Qt::AlignTop);
    row->addSpacing(24);
    row->addWidget(cautions_, 1, Qt::AlignTop);
    words->addSpacing(10);
    words->addLayout(row);
    words->addStretch(1);
    layout->addWidget(scrolled(words), 1);
    auto* buttons = new QHBoxLayout;
    for (QPushButton* one : {card_, next_, skip_, done_}) buttons->addWidget(one);
    buttons->addStretch(1);
    layout->addLayout(buttons);
    connect(card_, &QPushButton::clicked, this, &PlannedPanel::openCard);
    connect(next_, &QPushButton::clicked, this, &PlannedPanel::doNext);
    connect(skip_, &QPushButton::clicked, this, &PlannedPanel::skip);
    connect(done_, &QPushButton::clicked, this, &PlannedPanel::markDone);
}

bool PlannedPanel::has(const Session& session) {
    return session.document().find(session.selection().followUp)
           || session.document().find(session.selection().slot);
}

void PlannedPanel::refresh() {
    const FollowUp* later = session_.document().find(session_.selection().followUp);
    const Slot* slot = session_.document().find(session_.selection().slot);
    card_->setVisible(!later);
    next_->setVisible(!later);
    done_->setVisible(later != nullptr);
    if (later)
        show(followUpLines(session_.document(), *later), false);
    else if (slot)
        show(slotLines(session_.document(), *slot, session_.now()), !slot->skippedBecause.empty());
}

void PlannedPanel::show(const PlannedLines& reported, bool skipped) {
    title_->setText(reported.title);
    manualWork_->setText(reported.manualWork);
    when_->setText(reported.when.join("  ·  "));
    steps_->setText(reported.steps.join("\n"));
    cautions_->setText(reported.cautions.join("\n"));
    next_->setEnabled(!skipped);
    skip_->setText(skipped ? say("Take up again") : say("Skip…"));
}

void PlannedPanel::perform(const Message& title, const std::function<void(Edit&)>& change, bool datesAnew) {
    Edit edit(session_.document(), title);
    try {
        change(edit);
    } catch (const InputError& error) {
        session_.refuse(saySentence(error));
        return;
    }
    if (datesAnew)
        performLaid(session_, std::move(edit));
    else
        session_.perform(edit.finish());
}

void PlannedPanel::openCard() {
    if (const Slot* slot = session_.document().find(session_.selection().slot))
        openDialog(new CardSheet(session_, slot->id, this));
}

void PlannedPanel::doNext() {
    if (const Slot* slot = session_.document().find(session_.selection().slot))
        perform(titled("Do it next"), [id = slot->id](Edit& edit) { moveSlot(edit, id, 0); });
}

void PlannedPanel::skip() {
    const Document then = session_.document(); // what is pointed to stays while the dialog is open
    const FollowUp* later = session_.document().find(session_.selection().followUp);
    const Slot* slot = session_.document().find(session_.selection().slot);
    if (!later && slot && !slot->skippedBecause.empty()) {
        perform(
            titled("Take a mount up again"), [id = slot->id](Edit& edit) { takeUpAgain(edit, id); }, true);
        return;
    }
    askText(this, {say("Skip this"), say("Why? The reason stays in the record."), {}},
            [this, follow = later ? std::optional(later->id) : std::nullopt,
             planned = slot ? std::optional(slot->id) : std::nullopt](const QString& answer) {
                const std::string reason = answer.trimmed().toStdString();
                if (follow)
                    perform(titled("Skip a later run"),
                            [&](Edit& edit) { skipFollowUp(edit, *follow, reason); });
                else if (planned)
                    perform(
                        titled("Skip a mount"), [&](Edit& edit) { skipSlot(edit, *planned, reason); }, true);
                return QString();
            });
}

void PlannedPanel::markDone() {
    const FollowUp* later = session_.document().find(session_.selection().followUp);
    if (!later) return;
    perform(titled("A later run is done"), [done = *later](Edit& edit) mutable {
        done.done = true;
        edit.put(done);
    });
}

} // namespace ibuki
