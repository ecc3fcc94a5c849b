// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/plan_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/dialog_buttons.h"
#include "app/forms/topic.h"
#include "app/question/hand_time_lines.h"
#include "app/say.h"
#include "app/session/laid_change.h"
#include "core/domain/lookup.h"
#include "store/calendar/calendar.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {

PlanSheet::PlanSheet(Session& session, Id<Study> study, QWidget* parent)
    : QDialog(parent),
      session_(session),
      study_(study),
      times_(new QTableWidget(0, 3)),
      learned_(quietLabel()) {
    setWindowTitle(say("Times and checks"));
    explain(this, Topic::evenings);
    resize(860, 600);
    auto* layout = new QVBoxLayout(this);
    auto* columns = new QHBoxLayout;
    auto* left = new QVBoxLayout;
    left->addWidget(makeEvenings());
    left->addWidget(makeChecks());
    left->addStretch(1);
    columns->addWidget(scrolled(left), 1);
    columns->addWidget(makeTimes(), 1);
    layout->addLayout(columns, 1);
    layout->addWidget(closeButton(this));
    connect(&session_, &Session::documentChanged, this, &PlanSheet::refresh);
    refresh();
}

QWidget* PlanSheet::makeEvenings() {
    auto* box = new QWidget;
    auto* form = new QFormLayout(box);
    form->addRow(cardTitle(say("Evenings")));
    eveningForm_ = std::make_unique<EntityForm<Plan>>(session_, form, words::mark("plan"));
    eveningForm_->performWith([this](Edit edit) { performLaid(session_, std::move(edit)); });
    eveningForm_->date(say("First day"), &Plan::start);
    eveningForm_->requiredNumber(
        say("Begin at, o'clock"), [](const Plan& p) { return p.fromHour; },
        [](Plan& p, double v) { p.fromHour = v; }, 0, false, 24);
    eveningForm_->requiredNumber(
        say("Hours an evening"), [](const Plan& p) { return p.hours; },
        [](Plan& p, double v) { p.hours = v; }, 0, true, 24.01);
    eveningForm_->written(
        say("Days"), [](const Plan& p) { return p.weekdays.text(); },
        [](Plan& p, const std::string& text) { p.weekdays = parseWeekdays(text); });
    eveningForm_
        ->written(
            say("Come back after"), [](const Plan& p) { return textOf(p.followUps); },
            [](Plan& p, const std::string& text) { p.followUps = parseDelays(text); })
        ->setPlaceholderText(say("24 h, 5 d, 6 mo"));
    zone_ = new QComboBox;
    zone_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon); // names are long
    zone_->setMinimumContentsLength(12);
    addFormRow(form, say("Time zone"), zone_);
    for (const std::string& name : zoneNames()) zone_->addItem(qtext(name));
    connect(zone_, &QComboBox::activated, this, &PlanSheet::takeZone);
    return box;
}

QWidget* PlanSheet::makeChecks() {
    auto* box = new QWidget;
    auto* form = new QFormLayout(box);
    form->addRow(cardTitle(say("Checks and looks")));
    explain(box, Topic::looks);
    checkForm_ = std::make_unique<EntityForm<Plan>>(session_, form, words::mark("plan"));
    checkForm_->reference<Material>(say("Check mounts of"), &Plan::checkWith, say("none"), [this] {
        std::vector<std::pair<QString, Id<Material>>> names;
        for (const auto& [id, material] : session_.document().all<Material>())
            names.emplace_back(qtext(material.name), id);
        return names;
    });
    checkForm_->requiredNumber(
        say("How many checks"), [](const Plan& p) { return p.checkMounts; },
        [](Plan& p, double v) { p.checkMounts = static_cast<int>(v); }, 0, false, 100);
    checkForm_->requiredNumber(
        say("Seed of the order"), [](const Plan& p) { return p.seed; },
        [](Plan& p, double v) { p.seed = static_cast<int>(v); }, 0, false, 1e9);
    checkForm_->requiredNumber(
        say("Looks at the verdict planned"), [](const Plan& p) { return p.plannedLooks; },
        [](Plan& p, double v) { p.plannedLooks = static_cast<int>(v); }, 1, false, 11);
    form->addRow(quietLabel(
        say("Checks stand at the start, in between and at the end: a bench that drifts shows itself. "
            "Planned looks share the error between them. Checks and seed count when the plan is put on the "
            "tape.")));
    return box;
}

QWidget* PlanSheet::makeTimes() {
    auto* box = new QWidget;
    auto* layout = new QVBoxLayout(box);
    layout->addWidget(cardTitle(say("Minutes of hands")));
    times_->setHorizontalHeaderLabels({say("step"), "min", say("from")});
    times_->setAccessibleName(say("Minutes of hands"));
    times_->setObjectName("Minutes of hands");
    times_->verticalHeader()->hide();
    times_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    times_->setTabKeyNavigation(false);
    connect(times_, &QTableWidget::cellChanged, this, [this](int row, int column) {
        if (column == 1) stateTime(row);
    });
    layout->addWidget(times_, 1);
    layout->addWidget(learned_);
    return box;
}

void PlanSheet::refresh() {
    if (!session_.document().find(study_)) {
        reject(); // undone
        return;
    }
    const Plan* plan = planOf(session_.document(), study_);
    const auto shown = plan ? std::optional(plan->id) : std::nullopt;
    eveningForm_->show(shown);
    checkForm_->show(shown);
    zone_->setCurrentText(qtext(plan ? plan->zone : Plan{}.zone));
    fillTimes();
}

void PlanSheet::takeZone(int index) {
    const Plan* stored = planOf(session_.document(), study_);
    if (!stored) return;
    Plan plan = *stored;
    plan.zone = zone_->itemText(index).toStdString();
    Edit edit(session_.document(), titled("Change the time zone"));
    edit.put(plan);
    performLaid(session_, std::move(edit));
}

void PlanSheet::fillTimes() {
    const Question* question = firstQuestion(session_.document(), study_);
    const Study& study = *session_.document().find(study_);
    if (!question) return;
    const QSignalBlocker quiet(times_);
    const auto lines = handTimeLines(session_.document(), *question, study.bench);
    times_->setRowCount(static_cast<int>(lines.size()));
    int row = 0;
    for (const HandTimeLine& line : lines) {
        auto* name = fixedItem(line.name);
        name->setData(Qt::UserRole, static_cast<int>(line.material));
        name->setData(Qt::UserRole + 1, static_cast<int>(line.step));
        times_->setItem(row, 0, name);
        auto* minutes = new QTableWidgetItem(line.minutes);
        minutes->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        times_->setItem(row, 1, minutes);
        auto* source = fixedItem(line.source);
        source->setForeground(colours().quiet);
        times_->setItem(row, 2, source);
        ++row;
    }
    learned_->setText(turnaroundText(session_.document(), study.bench));
}

void PlanSheet::stateTime(int row) {
    const Study* study = session_.document().find(study_);
    const auto minutes = numberFrom(times_->item(row, 1)->text());
    if (!study) return;
    if (!minutes || *minutes < 0 || *minutes > 24 * 60) {
        session_.refuse(say("\"%1\" is no number of minutes. Write digits, such as 12.")
                            .arg(times_->item(row, 1)->text()));
        fillTimes();
        return;
    }
    const auto kind = static_cast<MaterialClass>(times_->item(row, 0)->data(Qt::UserRole).toInt());
    const auto step = static_cast<StepKind>(times_->item(row, 0)->data(Qt::UserRole + 1).toInt());
    Edit edit(session_.document(), titled("State how long it takes to {step}", {{"step", Term{word(step)}}}));
    StepTime time;
    time.bench = study->bench;
    time.kind = step;
    time.material = kind;
    for (const StepTime* there : session_.document().where(&StepTime::bench, study->bench))
        if (there->kind == step && there->material == kind) time = *there;
    time.minutes = *minutes;
    if (time.id)
        edit.put(time);
    else
        edit.add(time);
    performLaid(session_, std::move(edit));
}

} // namespace ibuki
