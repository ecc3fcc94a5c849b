// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/evenings_page.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/question/evening_lines.h"
#include "app/say.h"
#include "app/session/laid_change.h"
#include "core/domain/lookup.h"
#include "core/plan/step_times.h"
#include "core/setup/plan_setup.h"
#include "store/atomic_file.h"
#include "store/calendar/plan_calendar.h"
#include "words/words.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QListWidget>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
EveningsPage::EveningsPage(Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      title_(cardTitle({})),
      anew_(button(say("Date the tape anew"), say("An evening went by otherwise: what is left moves on"))),
      evenings_(new QListWidget),
      times_(new QTableWidget(0, 3)),
      learned_(quietLabel()),
      later_(quietLabel()) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(makeEvenings(), 3);
    columns->addWidget(makeForm(), 2);
}

QWidget* EveningsPage::makeEvenings() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    layout->addWidget(title_);
    evenings_->setAccessibleName(say("Evenings"));
    evenings_->setObjectName("Evenings");
    evenings_->setWordWrap(true);
    evenings_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff); // long evenings wrap
    evenings_->setResizeMode(QListView::Adjust);
    layout->addWidget(evenings_, 1);
    later_->setObjectName("Later");
    layout->addWidget(later_);
    auto* row = new QHBoxLayout;
    auto* calendar = button(say("Calendar file…"), say("Evenings and follow-ups as an iCalendar file"));
    connect(calendar, &QPushButton::clicked, this, &EveningsPage::chooseCalendar);
    auto* follow = button(say("Plan follow-ups"), say("One dated tile a mount and delay"));
    connect(follow, &QPushButton::clicked, this, [this] {
        const Question* question = session_.question();
        if (!question) return;
        Edit edit(session_.document(), titled("Plan follow-ups"));
        try {
            layFollowUps(edit, planFor(session_.document(), question->study));
        } catch (const InputError& error) {
            session_.refuse(saySentence(error));
            return;
        }
        if (edit.finish().empty())
            session_.refuse(
                say("There is nothing to come back to. Write delays such as 24 h, 5 d, and put the "
                    "plan on the tape."));
        else
            session_.perform(edit.finish());
    });
    connect(anew_, &QPushButton::clicked, this,
            [this] { performLaid(session_, Edit(session_.document(), titled("Date the tape anew"))); });
    row->addWidget(calendar);
    row->addWidget(follow);
    row->addWidget(anew_);
    row->addStretch(1);
    layout->addLayout(row);
    return card(layout);
}

QWidget* EveningsPage::makeForm() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(18, 14, 18, 14);
    auto* form = new QFormLayout;
    form_ = std::make_unique<EntityForm<Plan>>(session_, form, words::mark("plan"));
    form_->performWith([this](Edit edit) { performLaid(session_, std::move(edit)); });
    form_->date(say("First day"), &Plan::start);
    form_->requiredNumber(
        say("Begin at, o'clock"), [](const Plan& p) { return p.fromHour; },
        [](Plan& p, double v) { p.fromHour = v; }, 0, false, 24);
    form_->requiredNumber(
        say("Hours an evening"), [](const Plan& p) { return p.hours; },
        [](Plan& p, double v) { p.hours = v; }, 0, true, 24.01);
    form_->written(
        say("Days"), [](const Plan& p) { return p.weekdays.text(); },
        [](Plan& p, const std::string& text) { p.weekdays = parseWeekdays(text); });
    form_
        ->written(
            say("Come back after"), [](const Plan& p) { return textOf(p.followUps); },
            [](Plan& p, const std::string& text) { p.followUps = parseDelays(text); })
        ->setPlaceholderText(say("24 h, 5 d, 6 mo"));
    zone_ = new QComboBox;
    addFormRow(form, say("Time zone"), zone_);
    connect(zone_, &QComboBox::activated, this, [this](int index) {
        const Question* question = session_.question();
        const Plan* stored = question ? planOf(session_.document(), question->study) : nullptr;
        if (!stored) return;
        Plan plan = *stored;
        plan.zone = zone_->itemText(index).toStdString();
        Edit edit(session_.document(), titled("Change the time zone"));
        edit.put(plan);
        performLaid(session_, std::move(edit));
    });
    layout->addLayout(form);
    layout->addWidget(cardTitle(say("Minutes of hands")));
    times_->setHorizontalHeaderLabels({say("step"), "min", say("from")});
    times_->setAccessibleName(say("Minutes of hands"));
    times_->setObjectName("Minutes of hands");
    times_->verticalHeader()->hide();
    times_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    times_->setTabKeyNavigation(false);
    times_->setMinimumHeight(150);
    connect(times_, &QTableWidget::cellChanged, this, [this](int row, int column) {
        if (column == 1) stateTime(row);
    });
    layout->addWidget(times_, 1);
    layout->addWidget(learned_);
    auto* frame = new QVBoxLayout;
    frame->setContentsMargins(0, 0, 0, 0);
    frame->addWidget(scrolled(layout));
    return card(frame);
}

void EveningsPage::refresh(const PlanFigures& figures) {
    figures_ = figures;
    const Question* question = session_.question();
    if (!question) return;
    if (zone_->count() == 0)
        for (const std::string& name : zoneNames()) zone_->addItem(qtext(name));
    zone_->setCurrentText(qtext(figures.plan.zone));
    const Plan* stored = planOf(session_.document(), question->study);
    form_->show(stored ? std::optional(stored->id) : std::nullopt);
    fillTimes();
    evenings_->clear();
    const EveningLines told = eveningLines(session_.document(), *question, figures, session_.now());
    title_->setText(told.title);
    evenings_->addItems(told.evenings);
    later_->setText(told.later);
    anew_->setEnabled(told.canBeDatedAnew);
}

void EveningsPage::fillTimes() {
    const Question* question = session_.question();
    const Study* study = session_.study();
    if (!study || !question) return;
    const QSignalBlocker quiet(times_);
    const auto lines = handTimeLines(session_.document(), *question, study->bench);
    times_->setRowCount(static_cast<int>(lines.size()));
    int row = 0;
    for (const HandTimeLine& line : lines) {
        auto* name = new QTableWidgetItem(line.name);
        name->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
        name->setData(Qt::UserRole, static_cast<int>(line.material));
        name->setData(Qt::UserRole + 1, static_cast<int>(line.step));
        times_->setItem(row, 0, name);
        auto* minutes = new QTableWidgetItem(line.minutes);
        minutes->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        times_->setItem(row, 1, minutes);
        auto* source = new QTableWidgetItem(line.source);
        source->setFlags(Qt::ItemIsEnabled);
        source->setForeground(colours().quiet);
        times_->setItem(row, 2, source);
        ++row;
    }
    learned_->setText(turnaroundText(session_.document(), study->bench));
}

void EveningsPage::stateTime(int row) {
    const Study* study = session_.study();
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

void EveningsPage::chooseCalendar() {
    askFile(this, {FileWish::Kind::save, say("Calendar file"), say("plan.ics"), say("iCalendar (*.ics)")},
            [this](const QString& path) {
                if (exportCalendar(path)) session_.post(say("Written to %1. Calendars open it.").arg(path));
            });
}

bool EveningsPage::exportCalendar(const QString& path) {
    const Question* question = session_.question();
    if (!question) return false;
    try {
        const auto events = planEvents(session_.document(), question->study);
        if (events.empty()) {
            session_.refuse(say("Nothing is planned yet. Put the order on the tape first."));
            return false;
        }
        const Instant stamp{QDateTime::currentMSecsSinceEpoch()};
        writeFileAtomically(path.toStdString(), calendarText(events, figures_.plan.zone, stamp));
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

} // namespace ibuki
