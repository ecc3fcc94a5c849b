// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/ageing_view.h"

#include "app/ageing/accelerated_page.h"
#include "app/ageing/course_page.h"
#include "app/ageing/due_page.h"
#include "app/ageing/happened_page.h"
#include "app/ageing/machines_page.h"
#include "app/ageing/mounts_page.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

AgeingView::AgeingView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      desk_(session),
      export_(button(say("Export…"), say("This page as a drawing, a picture or its data"))),
      pages_(new QStackedWidget),
      course_(new CoursePage(desk_)),
      mounts_(new MountsPage(desk_)),
      due_(new DuePage(desk_)),
      machines_(new MachinesPage(desk_)),
      happened_(new HappenedPage(desk_)) {
    explain(this, Topic::ageing);
    auto* accelerated = new AcceleratedPage;
    QStringList names;
    for (ExportedPage* page :
         std::initializer_list<ExportedPage*>{course_, mounts_, due_, machines_, happened_, accelerated}) {
        pages_->addWidget(page);
        names << page->name();
    }
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(14, 10, 14, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(cardTitle(say("What time does to the mounts")), 1);
    head->addWidget(export_);
    inside->addLayout(head);
    inside->addWidget(pageSwitch(pages_, names));
    inside->addWidget(pages_, 1);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(card(inside));
    connect(export_, &QPushButton::clicked, this, [this] {
        if (auto* page = qobject_cast<ExportedPage*>(pages_->currentWidget())) askExport(session_, *page);
    });
    connect(due_, &DuePage::checkWanted, this, &AgeingView::checkWanted);
    connect(&desk_, &AgeingDesk::reported, this, [this] {
        course_->refresh();
        mounts_->refresh();
        due_->refresh();
        machines_->refresh();
        happened_->refresh();
    });
    refresh();
}

void AgeingView::refresh() {
    if (isVisible() || !desk_.matter()) desk_.refresh();
}

void AgeingView::showDue() { pages_->setCurrentWidget(due_); }

void AgeingView::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    desk_.refresh();
}

} // namespace ibuki
