// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/shelf_view.h"

#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/cut_page.h"
#include "app/shelf/dose_page.h"
#include "app/shelf/gap_page.h"
#include "app/shelf/shelf_page.h"
#include "app/shelf/shelf_subject.h"
#include "core/domain/bench.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

ShelfView::ShelfView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      pages_(new QStackedWidget),
      site_(new QComboBox),
      shelf_(new ShelfPage(session)),
      dose_(new DosePage(session)),
      cut_(new CutPage(session)),
      gap_(new GapPage(session)) {
    explain(this, Topic::shelf);
    explain(dose_, Topic::dose);
    explain(cut_, Topic::cutting);
    explain(gap_, Topic::gap);
    for (QWidget* page : std::initializer_list<QWidget*>{shelf_, dose_, cut_, gap_}) pages_->addWidget(page);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* row = new QHBoxLayout;
    row->addWidget(pageSwitch(pages_, {say("On the shelf"), say("Dose"), say("Cut"), say("Gap")}), 1);
    auto* label = new QLabel(say("for the site"));
    label->setProperty("quiet", true);
    site_->setAccessibleName(say("For the site"));
    site_->setObjectName("For the site");
    site_->setPlaceholderText(say("no bench yet"));
    site_->setMinimumContentsLength(14);
    label->setBuddy(site_);
    row->addWidget(label);
    row->addWidget(site_);
    layout->addLayout(row);
    layout->addWidget(pages_, 1);
    connect(site_, &QComboBox::activated, this, [this](int index) {
        Selection selection = session_.selection();
        selection.site = Id<Site>{site_->itemData(index).toLongLong()};
        session_.select(selection);
    });
    connect(pages_, &QStackedWidget::currentChanged, this, &ShelfView::refresh);
    refresh();
}

void ShelfView::showPage(Page page) { pages_->setCurrentIndex(static_cast<int>(page)); }

void ShelfView::fillSites() {
    site_->clear();
    if (const Configuration* configuration = session_.configuration())
        for (const Site* site : session_.document().where(&Site::configuration, configuration->id))
            site_->addItem(qtext(site->name), static_cast<qlonglong>(site->id.value));
    const Site* chosen = shelfSite(session_);
    site_->setCurrentIndex(chosen ? site_->findData(static_cast<qlonglong>(chosen->id.value)) : -1);
}

void ShelfView::refresh() {
    fillSites();
    switch (static_cast<Page>(pages_->currentIndex())) {
    case Page::shelf:
        shelf_->refresh();
        break;
    case Page::dose:
        dose_->refresh();
        break;
    case Page::cut:
        cut_->refresh();
        break;
    case Page::gap:
        gap_->refresh();
        break;
    }
}

} // namespace ibuki
