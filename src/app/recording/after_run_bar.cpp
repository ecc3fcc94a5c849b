// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/recording/after_run_bar.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/run/mount_actions.h"
#include "app/run/readings_sheet.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/import/recorded.h"
#include "core/setup/next_step.h"

#include <QHBoxLayout>

namespace ibuki {

AfterRunBar::AfterRunBar(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      reported_(new QLabel),
      keep_(button(say("Keep"), say("It counts; on to the next planned mount"), true)) {
    setTextFont(reported_, 1.15, QFont::DemiBold);
    auto* reject = button(say("Reject…"), say("With a reason: what was physically wrong"));
    auto* again = button(say("Once more"), say("Another run of the same mount"));
    auto* peel = button(say("Peel"), say("The cooler comes off now: a picture of both faces, what was seen"));
    auto* readings = button(say("Readings…"), say("Score, frame rate, noise: what no sensor gave"));
    connect(keep_, &QPushButton::clicked, this, &AfterRunBar::keep);
    connect(reject, &QPushButton::clicked, this, [this] { rejectMount(session_, this); });
    connect(again, &QPushButton::clicked, this, [this] {
        if (mount_) emit againWanted(*mount_);
    });
    connect(peel, &QPushButton::clicked, this, [this] {
        if (mount_) emit peelWanted(*mount_);
    });
    connect(readings, &QPushButton::clicked, this, [this] {
        if (mount_) openReadings(session_, *mount_, this);
    });
    auto* layout = new QHBoxLayout;
    layout->setContentsMargins(16, 6, 12, 6);
    layout->addWidget(reported_, 1);
    for (QPushButton* one : {readings, peel, again, reject, keep_}) {
        one->setMinimumHeight(40);
        layout->addWidget(one);
    }
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(card(layout));
}

void AfterRunBar::remember(Id<Mount> mount) {
    mount_ = mount;
    isNew_ = true;
}

void AfterRunBar::refresh() {
    const Mount* mount = session_.document().find(mount_);
    setVisible(mount && session_.selection().mount == mount_);
    if (!mount) return;
    if (isNew_ && isVisible()) keep_->setFocus();
    isNew_ = isNew_ && !isVisible();
    reported_->setText(mount->rejected ? say("Recorded and rejected: %1").arg(qtext(mount->name))
                                       : say("Recorded: %1. Does it count?").arg(qtext(mount->name)));
}

void AfterRunBar::keep() {
    const auto study = mount_ ? studyOf(session_.document(), *mount_) : std::nullopt;
    forget();
    if (study)
        if (const NextStep step = nextStep(session_.document(), *study); step.slot) {
            Selection next = session_.selection();
            next.mount.reset();
            next.slot = step.slot;
            session_.select(next);
        }
    refresh();
}

void openReadings(Session& session, Id<Mount> mount, QWidget* parent) {
    const auto runs = runsOf(session.document(), mount);
    if (!runs.empty()) openDialog(new ReadingsSheet(session, runs.back()->id, parent));
}

} // namespace ibuki
