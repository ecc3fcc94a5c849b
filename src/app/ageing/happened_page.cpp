// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ageing/happened_page.h"

#include "app/ageing/ageing_lines.h"
#include "app/drawn/line_pens.h"
#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/figure_table.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "core/domain/words.h"
#include "store/paper/ageing_csv.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <map>
#include <qcustomplot.h>

namespace ibuki {
namespace {

QLabel* reportLabel(const QString& name) {
    auto* label = new QLabel;
    label->setWordWrap(true);
    label->setObjectName(name);
    label->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    return label;
}

QString sentences(const std::vector<Message>& reported) {
    QStringList lines;
    for (const Message& one : reported) lines << sayText(one) + ".";
    return lines.join("\n");
}

void prepare(QCustomPlot& plot, const QString& x, const QString& y) {
    plot.clearPlottables();
    plot.clearItems();
    plot.setBackground(QBrush(colours().sheet));
    for (QCPAxis* axis : {plot.xAxis, plot.yAxis}) stylePlotAxis(axis);
    plot.xAxis->setLabel(x);
    plot.yAxis->setLabel(y);
}

} // namespace

HappenedPage::HappenedPage(AgeingDesk& desk, QWidget* parent)
    : ExportedPage(say("Tubes and events"), parent),
      desk_(desk),
      tubes_(new QCustomPlot),
      tubesReported_(reportLabel(QStringLiteral("Tubes told"))),
      lots_(figureTable(say("Tubes"), tubeHead())),
      kind_(new QComboBox),
      survival_(new QCustomPlot),
      happenedReported_(reportLabel(QStringLiteral("Happened told"))) {
    explain(this, Topic::ageing);
    for (QCustomPlot* plot : {tubes_, survival_}) keepNamesApart(*plot);
    tubes_->setObjectName("Tubes plot");
    survival_->setObjectName("Survival plot");
    kind_->setAccessibleName(say("What happened"));
    kind_->setObjectName("What happened");
    const auto column = [](const QString& title, QWidget* head, QCustomPlot* plot, QLabel* reported,
                           QWidget* table) {
        auto* made = new QVBoxLayout;
        auto* line = new QHBoxLayout;
        line->addWidget(cardTitle(title), 1);
        if (head) line->addWidget(head);
        made->addLayout(line);
        plot->setMinimumHeight(150);
        made->addWidget(plot, 3);
        if (table) made->addWidget(table, 2);
        auto* inside = new QVBoxLayout;
        inside->setContentsMargins(0, 0, 0, 0);
        inside->addWidget(reported);
        inside->addStretch(1);
        made->addWidget(scrolled(inside), 2);
        return made;
    };
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(column(say("Tubes by their age"), nullptr, tubes_, tubesReported_, lots_), 1);
    layout->addSpacing(14);
    layout->addLayout(
        column(say("What happened, on all benches"), kind_, survival_, happenedReported_, nullptr), 1);
    connect(kind_, &QComboBox::activated, this, [this] { drawSurvival(); });
}

void HappenedPage::changeEvent(QEvent* event) {
    ExportedPage::changeEvent(event);
    if (event->type() != QEvent::PaletteChange || !desk_.matter()) return;
    drawTubes();
    drawSurvival();
}

void HappenedPage::refresh() {
    const AgeingMatter* matter = desk_.matter();
    if (!matter) return;
    const QSignalBlocker quiet(kind_);
    const QString was = kind_->currentText();
    kind_->clear();
    for (const OutcomeTable& table : matter->outcomes) kind_->addItem(sayTerm(word(table.kind)));
    kind_->setCurrentIndex(std::max(0, kind_->findText(was)));
    kind_->setVisible(kind_->count() > 0);
    drawTubes();
    drawSurvival();
}

const OutcomeTable* HappenedPage::chosen() const {
    const AgeingMatter* matter = desk_.matter();
    const int row = kind_->currentIndex();
    if (!matter || row < 0 || row >= static_cast<int>(matter->outcomes.size())) return nullptr;
    return &matter->outcomes[static_cast<std::size_t>(row)];
}

void HappenedPage::drawTubes() {
    prepare(*tubes_, say("Years since it was made"), say("ΔT fresh, K"));
    const ShelfAge& tubes = desk_.matter()->tubes;
    tubesReported_->setText(sentences(tubes.reported));
    fillTable(*lots_, tubeRows(tubes));
    std::map<std::string, std::vector<const LotFigures*>> byMaterial;
    for (const LotFigures& lot : tubes.lots)
        if (lot.madeYears && lot.meanK()) byMaterial[lot.material].push_back(&lot);
    std::size_t place = 0;
    for (const auto& [material, lots] : byMaterial) {
        QVector<double> x;
        QVector<double> y;
        for (const LotFigures* lot : lots) {
            x << *lot->madeYears;
            y << *lot->meanK();
        }
        QCPGraph* graph = tubes_->addGraph();
        graph->setData(x, y, true);
        graph->setPen(linePen(place));
        graph->setLineStyle(lots.size() > 1 ? QCPGraph::lsLine : QCPGraph::lsNone);
        graph->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, 9));
        nameLine(*tubes_, qtext(material), linePen(place).color(), x.back(), y.back());
        ++place;
    }
    tubes_->setVisible(place > 0);
    tubes_->rescaleAxes();
    tubes_->yAxis->scaleRange(1.3);
    leaveRoomForNames(*tubes_);
    tubes_->replot();
}

void HappenedPage::drawSurvival() {
    prepare(*survival_, say("Thermal cycles"), say("Share that survived"));
    const OutcomeTable* table = chosen();
    happenedReported_->setText(
        table ? sentences(table->reported)
              : say("Nothing was stated, and no look at a joint saw anything. State it under "
                    "Clocks, What happened, or under Peel."));
    std::size_t place = 0;
    for (std::size_t i = 0; table && i < table->materials.size(); ++i) {
        const MaterialOutcome& one = table->materials[i];
        QVector<double> x{0};
        QVector<double> y{1};
        double last = 0;
        for (const OutcomeMount& mount : one.mounts) last = std::max(last, mount.cycles);
        for (const SurvivalStep& step : one.survival) {
            x << step.at;
            y << step.survived;
        }
        x << last;
        y << y.back();
        QCPGraph* graph = survival_->addGraph();
        graph->setData(x, y, true);
        graph->setLineStyle(QCPGraph::lsStepLeft);
        graph->setPen(linePen(place));
        nameLine(*survival_, qtext(one.name), linePen(place).color(), last, y.back());
        ++place;
    }
    survival_->rescaleAxes();
    survival_->yAxis->setRange(-0.06, 1.08);
    leaveRoomForNames(*survival_);
    survival_->setVisible(table != nullptr);
    survival_->replot();
}

std::string HappenedPage::csv() const {
    return desk_.matter() ? tubesCsv(desk_.matter()->tubes, desk_.matter()->outcomes) : std::string();
}

} // namespace ibuki
