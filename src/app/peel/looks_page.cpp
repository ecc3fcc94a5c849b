// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/peel/looks_page.h"

#include "app/drawn/plot_style.h"
#include "app/drawn/theme.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/peel/coverage_map_view.h"
#include "app/peel/peel_lines.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/material.h"
#include "core/domain/words.h"
#include "core/evidence/run_rows.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QSignalBlocker>
#include <QVBoxLayout>
#include <map>
#include <qcustomplot.h>
#include <set>

namespace ibuki {
namespace {

constexpr double thumbnailSide = 92; // px of the longer side of the largest face

/// Mean ΔT of each mount under the compared load.
std::map<Id<Mount>, MountFigure> deltas(const Document& document, const Question& question) {
    const std::vector<RunRow> rows = runRows(document, question);
    MountRule rule; // all of them: what does not count is told apart
    rule.checkMounts = true;
    rule.rejected = true;
    rule.onlyFresh = false;
    rule.value = &RunRow::deltaK;
    std::map<Id<Mount>, MountFigure> found;
    for (const MountFigure& figure : mountFigures(rows, comparedLoad(document, rows, question), rule))
        found.emplace(figure.mount, figure);
    return found;
}

} // namespace

LooksPage::LooksPage(Session& session, LookDesk& desk, QWidget* parent)
    : ExportedPage(say("All looks"), parent),
      session_(session),
      desk_(desk),
      of_(new QComboBox),
      reported_(new QLabel),
      map_(new CoverageMapView),
      sheet_(new QListWidget),
      plot_(new QCustomPlot) {
    explain(this, Topic::peel);
    of_->setAccessibleName(say("Which looks"));
    of_->setObjectName("Which looks");
    reported_->setWordWrap(true);
    reported_->setObjectName("All looks told");
    sheet_->setAccessibleName(say("Masks at one scale"));
    sheet_->setObjectName("Contact sheet");
    sheet_->setViewMode(QListView::IconMode);
    sheet_->setResizeMode(QListView::Adjust);
    sheet_->setMovement(QListView::Static);
    sheet_->setIconSize({static_cast<int>(thumbnailSide), static_cast<int>(thumbnailSide)});
    sheet_->setSpacing(6);
    plot_->setObjectName("Coverage plot");
    plot_->setMinimumHeight(160);
    plot_->axisRect()->insetLayout()->take(plot_->legend); // beside the points, not over them
    plot_->plotLayout()->addElement(0, 1, plot_->legend);
    plot_->plotLayout()->setColumnStretchFactor(1, 0.001);
    auto* head = new QHBoxLayout;
    head->addWidget(of_);
    head->addWidget(reported_, 1);
    auto* right = new QVBoxLayout;
    right->addWidget(map_, 3);
    right->addWidget(plot_, 2);
    auto* both = new QHBoxLayout;
    both->addWidget(sheet_, 3);
    both->addLayout(right, 2);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(head);
    layout->addLayout(both, 1);
    connect(of_, &QComboBox::activated, this, [this] {
        isStale_ = true;
        refresh();
    });
    connect(sheet_, &QListWidget::itemActivated, this, [this](const QListWidgetItem* item) {
        session_.selectMount(Id<Mount>{item->data(Qt::UserRole).toLongLong()});
    });
}

void LooksPage::showEvent(QShowEvent* event) {
    ExportedPage::showEvent(event);
    refresh();
}

void LooksPage::changeEvent(QEvent* event) {
    ExportedPage::changeEvent(event);
    if (event->type() == QEvent::PaletteChange && isVisible()) {
        fillSheet();
        plot();
    }
}

void LooksPage::fillChoice(const std::map<std::int64_t, std::string>& materials,
                           const std::set<ApplicationPattern>& patterns) {
    const auto chosen = of_->currentData();
    const QSignalBlocker quiet(of_);
    of_->clear();
    of_->addItem(say("every look"), qlonglong{0});
    for (const auto& [id, name] : materials) of_->addItem(qtext(name), static_cast<qlonglong>(id));
    for (const ApplicationPattern pattern : patterns) // below 0: materials have ids above it
        of_->addItem(say("as %1").arg(sayTerm(word(pattern))),
                     static_cast<qlonglong>(-1 - static_cast<int>(pattern)));
    of_->setCurrentIndex(std::max(0, of_->findData(chosen)));
}

void LooksPage::refresh() {
    isStale_ = true;
    if (!isVisible()) return;
    isStale_ = false;
    const Document& document = session_.document();
    const Question* question = session_.question();
    const Site* site = question ? document.find(question->site) : nullptr;
    const auto bench = session_.selection().bench;
    std::vector<MountCoverage> all;
    if (question && site && bench) all = coverageOfBench(document, *bench, site->kind, desk_.masks());
    const auto materialOf = [&](Id<Mount> mount) {
        return question ? studiedMaterial(document, *question, mount) : nullptr;
    };
    const auto patternOf = [&](const MountCoverage& one) {
        const JointInspection* look = document.find(one.look);
        const Application* application = look ? applicationAt(document, one.mount, look->site) : nullptr;
        return application ? application->pattern : ApplicationPattern::notStated;
    };
    std::set<ApplicationPattern> patterns;
    for (const MountCoverage& one : all)
        if (patternOf(one) != ApplicationPattern::notStated) patterns.insert(patternOf(one));
    std::map<std::int64_t, std::string> materials;
    for (const MountCoverage& one : all)
        if (const Material* material = materialOf(one.mount)) materials[material->id.value] = material->name;
    fillChoice(materials, patterns);
    const auto wanted = of_->currentData().toLongLong();
    const auto delta = question ? deltas(document, *question) : std::map<Id<Mount>, MountFigure>{};
    looks_.clear();
    rows_.clear();
    std::vector<CoveragePoint> points;
    for (MountCoverage& one : all) {
        const Material* material = materialOf(one.mount);
        if (wanted > 0 && (!material || material->id.value != wanted)) continue;
        if (wanted < 0 && -1 - static_cast<int>(patternOf(one)) != wanted) continue;
        const auto at = delta.find(one.mount);
        rows_.push_back({document.find(one.mount)->name, material ? material->name : std::string(),
                         one.covered, one.corners,
                         at == delta.end() ? std::nullopt : std::optional(at->second.value)});
        if (at != delta.end() && !at->second.excluded && !at->second.censored)
            points.push_back({material ? material->id.value : 0, one.covered, at->second.value});
        looks_.push_back(std::move(one));
    }
    reported_->setText(
        looks_.empty()
            ? say("No joint of this bench has been looked at yet. Masks of all looks come together here: "
                  "a corner that is bare again and again is no fault of the paste.")
            : allLooksLine(looks_) + " " + slopeLine(points));
    for (QWidget* widget : std::initializer_list<QWidget*>{map_, sheet_, plot_, of_})
        widget->setVisible(!looks_.empty());
    fillSheet();
    fillMap();
    plot();
}

void LooksPage::fillSheet() {
    sheet_->clear();
    double longest = 1;
    for (const MountCoverage& one : looks_)
        longest = std::max({longest, one.joint.face.widthMm, one.joint.face.lengthMm});
    for (std::size_t i = 0; i < looks_.size(); ++i) {
        const MountCoverage& one = looks_[i];
        // One scale for all: a millimetre is as wide in each.
        const double pxPerMm = thumbnailSide / longest;
        const double zoom = pxPerMm * one.joint.face.widthMm / one.joint.mask.width;
        QString text = qtext(rows_[i].mount) + "\n" + say("%1 %").arg(100 * one.covered, 0, 'f', 0);
        if (rows_[i].deltaK) text += say(", Δ %1 K").arg(*rows_[i].deltaK, 0, 'f', 1);
        auto* item =
            new QListWidgetItem(QIcon(QPixmap::fromImage(thumbnailOf(one.joint.mask, zoom))), text, sheet_);
        item->setData(Qt::UserRole, static_cast<qlonglong>(one.mount.value));
        item->setTextAlignment(Qt::AlignHCenter);
        if (session_.selection().mount == one.mount) sheet_->setCurrentItem(item);
    }
}

void LooksPage::fillMap() {
    std::vector<const GreyPicture*> masks;
    for (const MountCoverage& one : looks_) masks.push_back(&one.joint.mask);
    map_->show(coverageMap(masks), looks_.empty() ? Extent{} : looks_.front().joint.face);
}

void LooksPage::plot() {
    plot_->clearPlottables();
    plot_->setBackground(colours().sheet);
    for (QCPAxis* axis : {plot_->xAxis, plot_->yAxis}) stylePlotAxis(axis);
    plot_->xAxis->setLabel(say("covered, %"));
    plot_->yAxis->setLabel(say("ΔT, K"));
    std::map<std::string, QVector<double>> x, y;
    for (const LookRow& row : rows_)
        if (row.deltaK) {
            x[row.material] << 100 * row.covered;
            y[row.material] << *row.deltaK;
        }
    const QList<QCPScatterStyle::ScatterShape> shapes{QCPScatterStyle::ssDisc,     QCPScatterStyle::ssSquare,
                                                      QCPScatterStyle::ssTriangle, QCPScatterStyle::ssDiamond,
                                                      QCPScatterStyle::ssCross,    QCPScatterStyle::ssPlus};
    int n = 0;
    for (const auto& [material, values] : x) {
        QCPGraph* graph = plot_->addGraph();
        graph->setName(qtext(material));
        graph->setLineStyle(QCPGraph::lsNone);
        graph->setScatterStyle(QCPScatterStyle(shapes[n++ % shapes.size()], colours().ink, Qt::NoBrush, 8));
        graph->setData(values, y[material]);
    }
    plot_->legend->setVisible(x.size() > 1);
    plot_->legend->setBrush(Qt::NoBrush);
    plot_->legend->setBorderPen(Qt::NoPen);
    plot_->legend->setTextColor(colours().ink);
    plot_->legend->setFont(textFont(smallText));
    plot_->rescaleAxes();
    plot_->xAxis->scaleRange(1.15);
    plot_->yAxis->scaleRange(1.3);
    plot_->replot();
}

std::string LooksPage::csv() const { return rows_.empty() ? std::string() : looksCsv(rows_); }

QWidget* LooksPage::picture() { return sheet_; }

} // namespace ibuki
