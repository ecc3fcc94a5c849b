// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/mounts_page.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "store/paper/ageing_csv.h"

#include <QHBoxLayout>
#include <QTableWidget>
#include <QVBoxLayout>
#include <cmath>
#include <map>
#include <qcustomplot.h>

namespace ibuki {
namespace {

constexpr double binK = 5;

} // namespace

MountsPage::MountsPage(AgeingDesk& desk, QWidget* parent)
    : ExportedPage(say("Clocks"), parent),
      desk_(desk),
      table_(figureTable(say("Clocks of the mounts"), mountHead())),
      reported_(quietLabel()),
      plot_(new QCustomPlot) {
    explain(this, Topic::ageing);
    plot_->setObjectName("Cycles plot");
    plot_->setMinimumHeight(120);
    reported_->setObjectName("Clocks told");
    auto* buttons = new QHBoxLayout;
    const auto add = [&](const QString& text, const QString& tip, auto what) {
        auto* made = button(text, tip);
        connect(made, &QPushButton::clicked, this, [this, what] {
            if (const auto mount = chosen())
                what(*mount);
            else
                desk_.session().refuse(say("Choose a mount first."));
        });
        buttons->addWidget(made);
    };
    add(say("How it is used…"), say("Hours under load and cycles between recordings"),
        [this](Id<Mount> mount) { desk_.openUse(mount); });
    add(say("What happened…"), say("Pumped out, dried, cracked in the cold, slipped, leaked, stuck; or not"),
        [this](Id<Mount> mount) { desk_.openOutcome(mount); });
    add(say("Opened…"), say("When it was taken apart: that ends its series"),
        [this](Id<Mount> mount) { desk_.askOpened(mount); });
    buttons->addStretch(1);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(table_, 3);
    layout->addLayout(buttons);
    layout->addWidget(reported_);
    layout->addWidget(plot_, 2);
    connect(table_, &QTableWidget::currentCellChanged, this, [this] { draw(); });
    connect(table_, &QTableWidget::cellActivated, this, [this] {
        if (const auto mount = chosen()) desk_.session().selectMount(*mount);
    });
}

void MountsPage::changeEvent(QEvent* event) {
    ExportedPage::changeEvent(event);
    if (event->type() == QEvent::PaletteChange && desk_.matter()) draw();
}

std::optional<Id<Mount>> MountsPage::chosen() const {
    const int row = table_->currentRow();
    if (row < 0 || row >= static_cast<int>(rows_.size())) return std::nullopt;
    return rows_[static_cast<std::size_t>(row)].mount;
}

const MountHistory* MountsPage::chosenHistory() const {
    const auto mount = chosen();
    if (mount && desk_.matter())
        for (const GroupAgeing& ageing : desk_.matter()->study.groups)
            for (const MountSeries& series : ageing.group.mounts)
                if (series.mount == *mount) return series.history.get();
    return nullptr;
}

void MountsPage::refresh() {
    const AgeingMatter* matter = desk_.matter();
    if (!matter) return;
    rows_ = mountRows(*matter);
    std::vector<QStringList> cells;
    int selected = -1;
    for (const MountRow& row : rows_) {
        if (desk_.session().selection().mount == row.mount) selected = static_cast<int>(cells.size());
        cells.push_back(row.cells);
    }
    fillTable(*table_, cells);
    if (selected >= 0) table_->setCurrentCell(selected, 0);
    draw();
}

void MountsPage::draw() {
    plot_->clearPlottables();
    const Colours& c = colours();
    plot_->setBackground(QBrush(c.sheet));
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->xAxis->setLabel(say("Range of a thermal cycle of the chip, K"));
    plot_->yAxis->setLabel(say("Cycles"));
    const MountHistory* history = chosenHistory();
    if (!history) {
        reported_->setText(rows_.empty() ? say("No mount of this study was measured.")
                                         : say("Choose a mount to see its cycles."));
        plot_->replot();
        return;
    }
    std::map<int, double> bins;
    for (const CountedCycle& cycle : history->cycles())
        bins[static_cast<int>(std::floor(cycle.range / binK))] += cycle.count;
    QVector<double> at;
    QVector<double> count;
    double whole = 0;
    for (const auto& [bin, sum] : bins) {
        at << (bin + 0.5) * binK;
        count << sum;
        if (bin * binK >= leastCycleK) whole += sum;
    }
    auto* bars = new QCPBars(plot_->xAxis, plot_->yAxis);
    bars->setData(at, count, true);
    bars->setWidth(binK * 0.9);
    bars->setPen(Qt::NoPen);
    bars->setBrush(c.cold);
    plot_->rescaleAxes();
    plot_->yAxis->setRangeLower(0);
    plot_->xAxis->setRangeLower(0);
    plot_->replot();
    reported_->setText(
        say("Counted by rainflow over its recordings: %1 cycles of %2 K and more; what its stated use "
            "adds is not in the picture.")
            .arg(whole, 0, 'g', 4)
            .arg(leastCycleK));
}

std::string MountsPage::csv() const {
    return desk_.matter() ? ageingCsv(desk_.matter()->study) : std::string();
}

QWidget* MountsPage::picture() { return plot_; }

} // namespace ibuki
