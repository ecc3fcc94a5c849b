// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/machines_page.h"

#include "app/ageing/ageing_lines.h"
#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "store/paper/ageing_csv.h"

#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {

MachinesPage::MachinesPage(AgeingDesk& desk, QWidget* parent)
    : ExportedPage(say("Machines"), parent),
      desk_(desk),
      seasons_(new QLabel),
      machines_(figureTable(say("Machines and when they are due"), machineHead())),
      sheetOrPaste_(quietLabel()),
      costs_(figureTable(say("What ten years cost"), costHead())) {
    explain(this, Topic::ageing);
    seasons_->setWordWrap(true);
    seasons_->setObjectName("Seasons");
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(seasons_);
    layout->addWidget(machines_, 3);
    layout->addWidget(cardTitle(say("Ten years, each application counted")));
    layout->addWidget(sheetOrPaste_);
    layout->addWidget(costs_, 2);
    connect(machines_, &QTableWidget::cellActivated, this, [this](int row, int) {
        const AgeingMatter* matter = desk_.matter();
        if (matter && row < static_cast<int>(matter->due.machines.size()))
            desk_.session().selectMount(matter->due.machines[static_cast<std::size_t>(row)].mount);
    });
}

void MachinesPage::refresh() {
    const AgeingMatter* matter = desk_.matter();
    if (!matter) return;
    fillTable(*machines_, machineRows(*matter));
    fillTable(*costs_, costRows(*matter));
    sheetOrPaste_->setText(matter->due.sheetOrPaste ? sayText(*matter->due.sheetOrPaste) + "." : QString());
    sheetOrPaste_->setVisible(matter->due.sheetOrPaste.has_value());
    QStringList seasons;
    for (const Message& one : matter->due.reported) seasons << sayText(one);
    seasons_->setText(seasons.isEmpty() ? say("No mount stands on any bench.") : seasons.join("; ") + ".");
}

std::string MachinesPage::csv() const {
    return desk_.matter() ? machinesCsv(desk_.matter()->due) : std::string();
}

} // namespace ibuki
