// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/peel_view.h"

#include "app/forms/page_export.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/peel/looks_page.h"
#include "app/peel/picture_page.h"
#include "app/peel/seen_page.h"
#include "app/say.h"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

PeelView::PeelView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      desk_(session),
      title_(cardTitle({})),
      export_(button(say("Export…"), say("This page as a drawing, a picture or its data"))),
      pages_(new QStackedWidget),
      pictures_(new PicturePage(session, desk_)),
      seen_(new SeenPage(session, desk_)),
      looks_(new LooksPage(session, desk_)) {
    explain(this, Topic::peel);
    for (QWidget* page : std::initializer_list<QWidget*>{pictures_, seen_, looks_}) pages_->addWidget(page);
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(14, 10, 14, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(title_, 1);
    head->addWidget(export_);
    inside->addLayout(head);
    inside->addWidget(pageSwitch(pages_, {pictures_->name(), say("Seen"), looks_->name()}));
    inside->addWidget(pages_, 1);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(card(inside));
    connect(export_, &QPushButton::clicked, this, [this] {
        if (auto* page = qobject_cast<ExportedPage*>(pages_->currentWidget())) askExport(session_, *page);
    });
    connect(pages_, &QStackedWidget::currentChanged, this,
            [this] { export_->setEnabled(qobject_cast<ExportedPage*>(pages_->currentWidget()) != nullptr); });
    refresh();
}

void PeelView::refresh() {
    const Mount* mount = session_.mount();
    title_->setText(mount ? say("What %1 looked like").arg(qtext(mount->name))
                          : say("What the joint looked like"));
    pictures_->refresh();
    seen_->refresh();
    looks_->refresh();
}

} // namespace ibuki
