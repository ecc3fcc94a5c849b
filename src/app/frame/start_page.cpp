// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/start_page.h"

#include "app/drawn/theme.h"
#include "app/forms/widgets.h"
#include "app/say.h"

#include <QAction>
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {

StartPage::StartPage(QAction* create, QAction* open, QAction* demo, QWidget* parent) : QWidget(parent) {
    auto* layout = new QVBoxLayout(this);
    layout->addStretch(2);
    auto* name = new QLabel(say("Ibuki"));
    setTextFont(name, 3.2, QFont::DemiBold);
    name->setAlignment(Qt::AlignCenter);
    layout->addWidget(name);
    auto* what = quietLabel(say("Which interface material keeps the chip cooler, and how sure can you be?"));
    setTextFont(what, 1.2);
    what->setAlignment(Qt::AlignCenter);
    layout->addWidget(what);
    layout->addSpacing(24);
    auto* row = new QHBoxLayout;
    row->addStretch(1);
    const std::pair<QAction*, QString> ways[] = {{create, say("a project for your own benches")},
                                                 {open, say("a project file, *.ibuki")},
                                                 {demo, say("a ship's compute room, made up")}};
    for (const auto& [action, words] : ways) {
        auto* column = new QVBoxLayout;
        column->setContentsMargins(20, 18, 20, 18);
        auto* start = button(action->text().remove('&'), action->shortcut().toString(), action == create);
        connect(start, &QPushButton::clicked, action, &QAction::trigger);
        column->addWidget(start);
        auto* note = quietLabel(words);
        note->setAlignment(Qt::AlignCenter);
        column->addWidget(note);
        QFrame* frame = card(column);
        frame->setFixedWidth(23 * fontMetrics().averageCharWidth() + 80);
        row->addWidget(frame);
    }
    row->addStretch(1);
    layout->addLayout(row);
    layout->addStretch(3);
}

} // namespace ibuki
