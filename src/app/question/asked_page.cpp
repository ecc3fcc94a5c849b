// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/asked_page.h"

#include "app/forms/widgets.h"
#include "app/question/levels_card.h"
#include "app/question/part_sheet.h"
#include "app/say.h"
#include "core/domain/lookup.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {

AskedPage::AskedPage(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), levels_(new LevelsCard(session)) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(levels_, 4);
    columns->addWidget(makeSame(), 3);
}

QWidget* AskedPage::makeSame() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    auto* form = new QFormLayout;
    form->setVerticalSpacing(7);
    studyForm_ = std::make_unique<EntityForm<Study>>(session_, form, words::mark("study"));
    planForm_ = std::make_unique<EntityForm<Plan>>(session_, form, words::mark("plan"));
    studyForm_->text(say("Study"), &Study::name);
    form->addRow(cardTitle(say("The same for every mount")));
    studyForm_->note(say("Held constant"), &Study::heldConstant);
    planForm_->choice(say("Pattern"), &Plan::pattern);
    planForm_->number(say("Amount, g"), &Plan::amount, 0, true);
    planForm_->number(say("Torque, N·m"), &Plan::torque, 0, true);
    planForm_->flag(say("Measure the machine as it stands first"), &Plan::baseline);
    layout->addLayout(form);
    layout->addStretch(1);
    auto* foot = new QHBoxLayout;
    foot->addStretch(1);
    auto* more = button(say("More…"), say("What varies, per watt, held against one, the load that counts"));
    connect(more, &QPushButton::clicked, this, [this] {
        if (session_.question()) openDialog(PartSheet::rare(session_, this));
    });
    foot->addWidget(more, 0, Qt::AlignBottom);
    layout->addLayout(foot);
    auto* frame = new QVBoxLayout;
    frame->setContentsMargins(0, 0, 0, 0);
    frame->addWidget(scrolled(layout));
    return card(frame);
}

void AskedPage::refresh() {
    const Question* question = session_.question();
    if (!question) return;
    studyForm_->show(question->study);
    const Plan* plan = planOf(session_.document(), question->study);
    planForm_->show(plan ? std::optional(plan->id) : std::nullopt);
    levels_->refresh();
}

} // namespace ibuki
