// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/next_step_bar.h"

#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/session/session.h"
#include "core/plan/mount_brief.h"

#include <QHBoxLayout>

namespace ibuki {

NextStepLines nextStepLines(const Document& document, const NextStep& step) {
    switch (step.needs) {
    case StudyNeeds::plan:
        return {say("Next: look at the order the plan would take (it stands on the tape as a draft) and put "
                    "it there. "
                    "Logs that exist already can be brought in at once."),
                say("Show the plan")};
    case StudyNeeds::mount: {
        const Slot* slot = document.find(*step.slot);
        return {say("Next: %1. %2 of %3 mounts are made.")
                    .arg(sayText(briefOf(document, *slot, {}).title))
                    .arg(step.mounted)
                    .arg(step.mounted + step.planned),
                say("Open it")};
    }
    case StudyNeeds::log:
        return {say("Next: the log of %1. It has no run yet.").arg(qtext(document.find(*step.mount)->name)),
                say("Bring in logs…")};
    case StudyNeeds::nothing:
        break;
    }
    return {};
}

NextStepBar::NextStepBar(Session& session, QWidget* parent)
    : QFrame(parent), session_(session), text_(new QLabel), way_(button({}, {}, true)) {
    setProperty("card", true);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(14, 8, 10, 8);
    text_->setWordWrap(true);
    text_->setAccessibleName(say("What comes next"));
    text_->setObjectName("NextStep");
    way_->setObjectName("NextStepWay");
    layout->addWidget(text_, 1);
    layout->addWidget(way_);
    connect(way_, &QPushButton::clicked, this, [this] { emit stepTaken(needs_); });
}

void NextStepBar::refresh() {
    const Study* study = session_.study();
    const NextStep step = study ? nextStep(session_.document(), study->id) : NextStep{};
    const NextStepLines lines = nextStepLines(session_.document(), step);
    needs_ = step.needs;
    text_->setText(lines.text);
    way_->setText(lines.way);
    way_->setAccessibleName(lines.way);
    setVisible(!lines.text.isEmpty());
}

} // namespace ibuki
