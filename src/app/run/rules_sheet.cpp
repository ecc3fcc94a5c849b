// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/run/rules_sheet.h"

#include "app/drawn/theme.h"
#include "app/forms/entity_form.h"
#include "app/forms/topic.h"
#include "app/jobs/job_progress.h"
#include "app/run/rule_changes.h"
#include "app/say.h"
#include "core/domain/run_reduction.h"

#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr const char* tryingName = words::mark("Reducing the study again");

} // namespace

RulesSheet::RulesSheet(Session& session, QWidget* parent)
    : QDialog(parent),
      session_(session),
      list_(new QTableWidget(0, 5)),
      words_(quietLabel()),
      take_(button(say("Take over"), say("Rules and figures, in one action"), true)) {
    setWindowTitle(say("Rules of reduction"));
    explain(this, Topic::rules);
    resize(980, 560);
    auto* layout = new QVBoxLayout(this);
    layout->addWidget(cardTitle(say("By which rules this study reduces its logs")));
    auto* columns = new QHBoxLayout;
    auto* form = new QFormLayout;
    addField(form, say("Window at least, s"), &ReductionRules::windowMinS, 10);
    addField(form, say("Window at most, s"), &ReductionRules::windowMaxS, 10);
    addField(form, say("Window ends before the load, s"), &ReductionRules::guardS, 0);
    addField(form, say("Steady below, K an hour"), &ReductionRules::slopeLimitKPerH, 0);
    addField(form, say("Rise that may remain, K"), &ReductionRules::remainingLimitK, 0);
    addField(form, say("Power step of a load, W"), &ReductionRules::minPowerStepW, 0);
    addField(form, say("Load or pause at least, s"), &ReductionRules::holdS, 0);
    addField(form, say("Share at the limit that binds"), &ReductionRules::limitShare, 0);
    auto* left = new QVBoxLayout;
    left->addLayout(form);
    auto* typical = button(say("Usual rules"));
    connect(typical, &QPushButton::clicked, this, [this] { showRules({}); });
    left->addWidget(typical, 0, Qt::AlignLeft);
    left->addStretch(1);
    columns->addLayout(left, 2);
    list_->setHorizontalHeaderLabels(
        {say("Run"), say("Before"), say("After"), say("Change"), say("Flags after")});
    list_->setAccessibleName(say("Figures before and after"));
    list_->setObjectName("Before and after");
    list_->setEditTriggers(QTableWidget::NoEditTriggers);
    list_->setTabKeyNavigation(false);
    list_->verticalHeader()->hide();
    list_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    list_->horizontalHeader()->setSectionResizeMode(4, QHeaderView::Stretch);
    columns->addWidget(list_, 3);
    layout->addLayout(columns, 1);
    words_->setObjectName("Rules words");
    layout->addWidget(words_);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    auto* attempt = button(say("Try on all runs"), say("Nothing is changed yet"));
    buttons->addButton(attempt, QDialogButtonBox::ActionRole);
    buttons->addButton(take_, QDialogButtonBox::ActionRole);
    take_->setEnabled(false);
    connect(attempt, &QPushButton::clicked, this, &RulesSheet::tryThem);
    connect(take_, &QPushButton::clicked, this, &RulesSheet::takeOver);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(buttons);
    if (const Study* study = session.study()) {
        stored_.study = study->id;
        for (const ReductionRules* rules : session.document().where(&ReductionRules::study, study->id))
            stored_ = *rules;
    }
    words_->setText(say(
        "Change a rule and try it: the list tells what becomes of every figure before anything is changed."));
    showRules(stored_);
}

void RulesSheet::addField(QFormLayout* form, const QString& label, double ReductionRules::*member,
                          double least) {
    auto* line = new QLineEdit;
    addFormRow(form, label, line);
    connect(line, &QLineEdit::textEdited, this, [this] { take_->setEnabled(false); });
    fields_.push_back({label, member, least, line});
}

void RulesSheet::showRules(const ReductionRules& rules) {
    for (const Field& field : fields_) field.line->setText(numberText(rules.*field.member));
    take_->setEnabled(false);
}

std::optional<ReductionRules> RulesSheet::typed() {
    ReductionRules rules = stored_;
    for (const Field& field : fields_) {
        const auto value = numberFrom(field.line->text());
        markWrong(field.line, !value || *value < field.least);
        if (!value || *value < field.least) {
            words_->setText(say("%1: \"%2\" is no number of at least %3.")
                                .arg(field.label, field.line->text(), numberText(field.least)));
            return std::nullopt;
        }
        rules.*field.member = *value;
    }
    if (rules.windowMaxS < rules.windowMinS) {
        words_->setText(say("The longest window is shorter than the shortest."));
        return std::nullopt;
    }
    return rules;
}

void RulesSheet::tryThem() {
    const Question* question = session_.question();
    const auto rules = typed();
    if (!question || !rules) return;
    tried_ = *rules;
    Edit edit(session_.document(), titled("try"));
    if (tried_.id)
        edit.put(tried_);
    else
        edit.add(tried_);
    auto tasks = reductionTasks(edit.document(), *question);
    if (tasks.empty()) {
        words_->setText(say("There is no run yet: the rules will hold for the first ones."));
        fresh_.clear();
        triedAt_ = session_.revision();
        take_->setEnabled(tried_ != stored_);
        return;
    }
    using Reductions = std::vector<RunReduction>;
    session_.jobs().startNewest<Reductions>(
        tryingName, this,
        [path = session_.path().toStdString(), tasks = std::move(tasks)](const std::stop_token& stop,
                                                                         const Progress& progress) {
            const Project project = Project::open(path, Access::readOnly, Decode::whenAsked);
            return reduceTasks(project, tasks, stop, progress);
        },
        [this, revision = session_.revision()](Reductions fresh) {
            triedAt_ = revision;
            show(fresh);
        },
        [this](const InputError& error) { words_->setText(saySentence(error)); });
    showProgress(session_.jobs().runner(tryingName), say(tryingName), this);
}

void RulesSheet::show(const std::vector<RunReduction>& fresh) {
    fresh_ = fresh;
    const Question* question = session_.question();
    if (!question) return;
    const RuleChanges reported = ruleChanges(session_.document(), *question, fresh);
    list_->setRowCount(static_cast<int>(reported.lines.size()));
    int row = 0;
    for (const RuleChange& line : reported.lines) {
        int column = 0;
        for (const QString& text : {line.run, line.before, line.after, line.change, line.flags}) {
            auto* item = new QTableWidgetItem(text);
            if (column > 0 && column < 4) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            list_->setItem(row, column++, item);
        }
        ++row;
    }
    words_->setText(reported.summary);
    take_->setEnabled(tried_ != stored_ || reported.changed > 0);
}

void RulesSheet::takeOver() {
    if (triedAt_ != session_.revision()) {
        words_->setText(say("The project changed meanwhile. Try the rules once more."));
        take_->setEnabled(false);
        return;
    }
    Edit edit(session_.document(), titled("Reduce the study by other rules"));
    if (tried_.id)
        edit.put(tried_);
    else
        tried_.id = edit.add(tried_);
    for (const RunReduction& one : fresh_) edit.put(one);
    if (!session_.perform(edit.finish())) return;
    stored_ = tried_;
    take_->setEnabled(false);
    words_->setText(say("Taken over. Undo brings rules and figures back."));
}

} // namespace ibuki
