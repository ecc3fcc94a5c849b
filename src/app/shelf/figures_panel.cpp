// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/figures_panel.h"

#include "app/forms/widgets.h"
#include "app/say.h"

#include <QGridLayout>

namespace ibuki {

FiguresPanel::FiguresPanel(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), grid_(new QGridLayout(this)) {
    grid_->setContentsMargins(2, 2, 2, 2);
    grid_->setHorizontalSpacing(14);
    grid_->setVerticalSpacing(5);
    setObjectName("Figures");
}

void FiguresPanel::show(const std::vector<ShelfThing>& things, const Site* site) {
    FigureTable reported = figureTable(session_.document(), things, site, session_.now());
    if (shown_ == reported) return; // making labels anew takes longer than all the rest
    shown_ = std::move(reported);
    while (QLayoutItem* item = grid_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    fill(*shown_);
}

void FiguresPanel::fill(const FigureTable& reported) {
    int row = 0;
    for (int i = 0; i < reported.heads.size(); ++i) grid_->addWidget(cardTitle(reported.heads[i]), 0, i + 1);
    if (!reported.heads.isEmpty()) ++row;
    for (const FigureLine& line : reported.lines) {
        grid_->addWidget(quietLabel(line.name), row, 0, Qt::AlignTop);
        for (int i = 0; i < line.values.size(); ++i) {
            auto* value = new QLabel(line.values[i]);
            value->setWordWrap(true);
            value->setTextInteractionFlags(Qt::TextSelectableByMouse);
            value->setAccessibleName(line.name);
            grid_->addWidget(value, row, i + 1, Qt::AlignTop);
        }
        ++row;
    }
    const int things = reported.lines.empty() ? 1 : static_cast<int>(reported.lines.front().values.size());
    if (reported.lacksSite)
        grid_->addWidget(quietLabel(say("Prices per application need a site with a size: see the bench.")),
                         row++, 0, 1, things + 1);
    grid_->setRowStretch(row, 1);
    grid_->setColumnStretch(0, 2);
    for (int i = 1; i <= things; ++i) grid_->setColumnStretch(i, 3);
}

} // namespace ibuki
