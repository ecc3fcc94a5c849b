// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/run_bar.h"

#include "app/forms/ask.h"
#include "app/forms/entity_form.h"
#include "app/forms/flow_layout.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/run/budget_sheet.h"
#include "app/run/rules_sheet.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"

#include <QCheckBox>
#include <QComboBox>

namespace ibuki {

RunBar::RunBar(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* row = new FlowLayout(4, this, 8);
    runs_ = new QComboBox;
    runs_->setAccessibleName(say("Run of this mount"));
    runs_->setObjectName("Run of this mount");
    runs_->setSizeAdjustPolicy(QComboBox::AdjustToContents); // names of loads differ in length
    connect(runs_, &QComboBox::activated, this,
            [this](int index) { emit runChosen(runs_->itemData(index).toLongLong()); });
    asFound_ = button(say("As found"), say("Puts the borders of load and window back"));
    connect(asFound_, &QPushButton::clicked, this, [this] { moveBorders({}); });
    asymptote_ = new QCheckBox(say("Count where its tail leads"));
    asymptote_->setObjectName("Count where its tail leads");
    asymptote_->setToolTip(
        say("For a run that was stopped early: the asymptote with its wider interval, flagged"));
    connect(asymptote_, &QCheckBox::clicked, this, &RunBar::useAsymptote);
    probe_ = button(say("Probe's clock…"), say("Shift between the clocks of log and room probe"));
    connect(probe_, &QPushButton::clicked, this, &RunBar::setProbeShift);
    explain(probe_, Topic::probe);
    auto* uncertainty =
        button(say("Uncertainty…"), say("Which parts there are, and which cancel between mounts"));
    connect(uncertainty, &QPushButton::clicked, this, [this] {
        if (run()) openDialog(new BudgetSheet(session_, run()->id, this));
    });
    auto* rules = button(
        say("Rules…"), say("By which rules the study's logs are reduced; tried before they are taken over"));
    connect(rules, &QPushButton::clicked, this, [this] {
        if (session_.study()) openDialog(new RulesSheet(session_, this));
    });
    for (QWidget* widget :
         std::initializer_list<QWidget*>{runs_, asFound_, asymptote_, probe_, uncertainty, rules})
        row->addWidget(widget);
}

/// One undoable change of the shown run, with the reduction that follows from it.
void RunBar::changeRun(const char* title, const std::function<void(Run&)>& change) {
    const Run* before = run();
    const Mount* mount = before ? session_.document().find(before->mount) : nullptr;
    if (!mount) return;
    Run changed = *before;
    change(changed);
    if (changed == *before) return;
    Edit edit(session_.document(), titled(title, {{"mount", mount->name}}));
    edit.put(changed);
    const Run* one = edit.document().find(changed.id);
    auto tasks = reductionTasks(edit.document(), std::span(&one, 1), session_.question());
    session_.performReduced(std::move(edit), std::move(tasks));
}

void RunBar::moveBorders(const HandMarks& marks) {
    const bool back = !marks.movesLoad() && !marks.movesWindow();
    changeRun(back ? words::mark("Put back the borders of {mount}")
                   : words::mark("Move the borders of {mount}"),
              [&](Run& run) {
                  run.loadStartS = marks.loadStartS;
                  run.loadEndS = marks.loadEndS;
                  run.windowStartS = marks.windowStartS;
                  run.windowEndS = marks.windowEndS;
              });
}

void RunBar::useAsymptote(bool use) {
    changeRun(use ? words::mark("Count the asymptote of {mount}")
                  : words::mark("Count the window's mean of {mount}"),
              [use](Run& run) { run.useAsymptote = use; });
}

void RunBar::setProbeShift() {
    const Recording* recording = run() ? session_.document().find(run()->recording) : nullptr;
    if (!recording || !recording->probe) return;
    askText(this,
            {say("Probe's clock"),
             say("Seconds to add to the room probe's clock (empty: as found from the data)"),
             recording->probeShiftS ? numberText(*recording->probeShiftS) : QString()},
            [this](const QString& typed) {
                const auto value = numberFrom(typed);
                if (!typed.trimmed().isEmpty() && !value)
                    return say("\"%1\" is no number of seconds. Write digits, such as 37.").arg(typed);
                putProbeShift(value);
                return QString();
            });
}

void RunBar::putProbeShift(std::optional<double> shiftS) {
    const Recording* recording = run() ? session_.document().find(run()->recording) : nullptr;
    if (!recording || !recording->probe) return;
    Edit edit(session_.document(), titled("Set the room probe's clock"));
    Recording changed = *recording;
    changed.probeShiftS = shiftS;
    edit.put(changed);
    std::vector<const Run*> runs = edit.document().where(&Run::recording, changed.id);
    auto tasks = reductionTasks(edit.document(), runs, session_.question());
    session_.performReduced(std::move(edit), std::move(tasks));
}

void RunBar::show(const Run& run, const LoadReduction* load) {
    run_ = run.id;
    const auto runs = runsOf(session_.document(), run.mount);
    const QSignalBlocker quiet(runs_);
    runs_->clear();
    for (const Run* one : runs) {
        const Load* under = session_.document().find(one->load);
        runs_->addItem(say("%1, run %2").arg(under ? qtext(under->name) : say("a load")).arg(one->repeat),
                       static_cast<qlonglong>(one->id.value));
    }
    runs_->setCurrentIndex(runs_->findData(static_cast<qlonglong>(run.id.value)));
    runs_->setVisible(runs.size() > 1);
    asFound_->setEnabled(run.loadStartS || run.loadEndS || run.windowStartS || run.windowEndS);
    asymptote_->setChecked(run.useAsymptote);
    asymptote_->setEnabled(run.useAsymptote || (load && load->steady.asymptoteK));
    const Recording* recording = session_.document().find(run.recording);
    probe_->setVisible(recording && recording->probe);
}

} // namespace ibuki
