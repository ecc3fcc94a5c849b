// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/heat_view.h"

#include "app/forms/page_export.h"
#include "app/forms/rehearsal_panel.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/heat/bursts_page.h"
#include "app/heat/external_page.h"
#include "app/heat/field_page.h"
#include "app/heat/joints_page.h"
#include "app/heat/stack_page.h"
#include "app/heat/transient_page.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/material.h"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>

namespace ibuki {

namespace {

/// What lies at the site: of the mount, else of all mounts where it is one.
const Material* materialMeant(const Document& document, const Question& question, const Mount* mount,
                              const Calibration& calibration) {
    if (mount) return studiedMaterial(document, question, mount->id);
    const auto& groups = calibration.input.groups;
    const bool isOne = std::all_of(groups.begin(), groups.end(), [&](const PathGroup& group) {
        return group.material == groups.front().material;
    });
    return isOne ? groups.front().material : nullptr;
}

} // namespace

HeatView::HeatView(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      title_(cardTitle({})),
      empty_(quietLabel()),
      export_(button(say("Export…"), say("This page as a drawing, a picture or its data"))),
      pages_(new QStackedWidget),
      stack_(new StackPage),
      field_(new FieldPage(session)),
      bursts_(new BurstsPage),
      steps_(new TransientPage(session)),
      rehearsal_(new RehearsalPanel(session)) {
    explain(this, Topic::heatPath);
    auto* joints = new JointsPage(session);
    auto* external = new ExternalPage(session);
    filled_ = {stack_, joints, external, field_};
    QStringList names;
    for (ExportedPage* page : std::initializer_list<ExportedPage*>{stack_, bursts_, joints, steps_, external,
                                                                   field_, rehearsal_}) {
        pages_->addWidget(page);
        names << page->name();
    }
    auto* inside = new QVBoxLayout;
    inside->setContentsMargins(14, 10, 14, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(title_, 1);
    head->addWidget(export_);
    inside->addLayout(head);
    switch_ = pageSwitch(pages_, names);
    inside->addWidget(switch_);
    empty_->setObjectName("Heat path empty");
    inside->addWidget(empty_);
    inside->addWidget(pages_, 1);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(card(inside));
    connect(export_, &QPushButton::clicked, this, [this] { askExport(session_, *currentPage()); });
    connect(stack_, &StackPage::whatIfChanged, this, &HeatView::showStack);
    connect(joints, &JointsPage::anchorChosen, this, [this](int group) {
        anchor_ = static_cast<std::size_t>(group);
        refresh();
    });
    refresh();
}

ExportedPage* HeatView::currentPage() const { return qobject_cast<ExportedPage*>(pages_->currentWidget()); }

void HeatView::showStack() {
    if (!bench_.studied) return;
    const ChangedPath now = changed(bench_, stack_->what());
    field_->show(now);
    bursts_->show(now.path);
    tellTurnedOver();
}

void HeatView::tellTurnedOver() {
    if (!isVisible() || !bench_.studied || !stack_->isTurned()) return emit turnedOver(std::nullopt);
    const ChangedPath now = changed(bench_, stack_->what());
    if (chainSteps(now.path).runaway) return emit turnedOver(std::nullopt);
    emit turnedOver(computedPath(now.places, now.studied, now.path));
}

void HeatView::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    tellTurnedOver();
}

void HeatView::hideEvent(QHideEvent* event) {
    QWidget::hideEvent(event);
    emit turnedOver(std::nullopt);
}

StudyHeat HeatView::heatOf(const Document& document, const Question& question, const Mount* mount) const {
    const auto configuration = mount ? std::optional(mount->configuration) : std::nullopt;
    return anchor_ ? studyHeat(document, question, configuration, anchor_)
                   : studyHeat(document, question, configuration);
}

void HeatView::refresh() {
    const Question* question = session_.question();
    const Document& document = session_.document();
    title_->setText(say("Heat path"));
    const Mount* mount = session_.mount();
    StudyHeat heat;
    heat.measured.reason = Message{"heat-needs-power", {}};
    if (question) heat = heatOf(document, *question, mount);
    const auto calibration =
        heat.measured.reason ? std::nullopt : std::optional(calibrate(*heat.measured.input));
    const bool isKnown = calibration.has_value();
    for (QWidget* widget : {static_cast<QWidget*>(pages_), switch_, static_cast<QWidget*>(export_)})
        widget->setVisible(isKnown);
    empty_->setVisible(!isKnown);
    if (!isKnown) {
        bench_ = {};
        emit turnedOver(std::nullopt);
        empty_->setText(sayText(*heat.measured.reason) + ".");
        return;
    }
    bench_ = calibration->input.bench;
    // By the same cooler as the calibration, whatever it is anchored on.
    const auto seen = mount ? pathOfMount(heat, mount->id) : pathOfMaterial(heat, std::nullopt);
    HeatPath& path = bench_.path;
    path.coolerKPerW = calibration->coolerKPerW;
    if (seen) {
        path.powerW = seen->powerW;
        path.ambientC = seen->ambientC;
        path.interfaces[*bench_.studied].rMm2KPerW = std::max(0.0, seen->studiedMm2KPerW);
    }
    const Bench* bench = document.find(session_.selection().bench);
    title_->setText(
        mount ? say("Heat path of %1").arg(qtext(mount->name))
              : say("Heat path of %1, mean of its mounts").arg(bench ? qtext(bench->name) : QString()));
    const Material* material = materialMeant(document, *question, mount, *calibration);
    if (material) bench_.studiedClass = material->kind;
    const Site* site = document.find(question->site);
    const HeatMatter matter{document, *calibration,
                            bench_,   heat.measured.anchorAssumed,
                            material, site && site->gap ? std::optional(site->gap->value) : std::nullopt};
    for (HeatPage* page : filled_) page->fill(matter);
    steps_->refresh();
    rehearsal_->refresh();
}

} // namespace ibuki
