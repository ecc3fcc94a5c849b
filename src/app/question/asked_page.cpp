// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/asked_page.h"

#include "app/forms/widgets.h"
#include "app/question/level_sheet.h"
#include "app/question/levels_card.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/evidence.h"
#include "core/evidence/reduction_task.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace ibuki {

AskedPage::AskedPage(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), levels_(new LevelsCard(session)) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(makeSettings(), 3);
    columns->addWidget(levels_, 3);
}

QWidget* AskedPage::makeSettings() {
    auto* form = new QFormLayout;
    form->setContentsMargins(18, 14, 18, 14);
    form->setVerticalSpacing(7);
    studyForm_ = std::make_unique<EntityForm<Study>>(session_, form, words::mark("study"));
    questionForm_ = std::make_unique<EntityForm<Question>>(session_, form, words::mark("question"));
    planForm_ = std::make_unique<EntityForm<Plan>>(session_, form, words::mark("plan"));
    frozen_ = quietLabel();
    form->addRow(frozen_);
    studyForm_->text(say("Study"), &Study::name);
    addQuestionFields(form);
    studyForm_->note(say("Held constant"), &Study::heldConstant);
    addPlanFields(form);
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(scrolled(form));
    return card(layout);
}

void AskedPage::addQuestionFields(QFormLayout* form) {
    questionForm_->choice(say("What varies"), &Question::factor);
    secondFactor_ = new QComboBox;
    secondFactor_->addItem(say("nothing else"), -1);
    for (std::size_t i = 0; i < Words<Factor>::all.size(); ++i)
        secondFactor_->addItem(sayTerm(Words<Factor>::all[i]), static_cast<int>(i));
    addFormRow(form, say("And"), secondFactor_);
    connect(secondFactor_, &QComboBox::activated, this, [this](int index) {
        const int chosen = secondFactor_->itemData(index).toInt();
        changeQuestion(titled("Change the second factor"), [&](Question& question) {
            question.secondFactor = chosen < 0 ? std::nullopt : std::optional(static_cast<Factor>(chosen));
        });
    });
    questionForm_->choice(say("To show"), &Question::goal);
    site_ = new QComboBox;
    addFormRow(form, say("Site under study"), site_);
    connect(site_, &QComboBox::activated, this, [this](int index) {
        const Id<Site> site{site_->itemData(index).toLongLong()};
        changeQuestion(titled("Change the site under study"),
                       [&](Question& question) { question.site = site; });
    });
    metric_ = new QComboBox;
    for (Metric metric : allMetrics) metric_->addItem(sayTerm(metricTitle(metric)), static_cast<int>(metric));
    addFormRow(form, say("Judged by"), metric_);
    connect(metric_, &QComboBox::activated, this, [this](int index) {
        const auto metric = static_cast<Metric>(metric_->itemData(index).toInt());
        changeQuestion(titled("Judge by {metric}", {{"metric", Term{metricTitle(metric)}}}),
                       [&](Question& question) { question.metric = metric; });
    });
    reference_ = questionForm_->choice(say("Measured over"), &Question::reference);
    taken_ = questionForm_->choice(say("Taken"), &Question::normalisation);
    questionForm_->number(say("Nominal power, W"), &Question::nominalPower, 0, true);
    margin_ = questionForm_->requiredNumber(
        say("Difference that matters, K"), [](const Question& q) { return q.margin.value; },
        [](Question& q, double v) { q.margin = Kelvin{v}; }, 0, true);
    confidence_ = questionForm_->requiredNumber(
        say("Sure, in %"), [](const Question& q) { return 100 * q.confidence; },
        [](Question& q, double v) { q.confidence = v / 100; }, 50, true, 100);
    heldAgainst_ = new QComboBox;
    addFormRow(form, say("Held against"), heldAgainst_);
    connect(heldAgainst_, &QComboBox::activated, this, [this](int index) {
        const qlonglong level = heldAgainst_->itemData(index).toLongLong();
        changeQuestion(titled("Change what the others are held against"), [&](Question& question) {
            question.referenceLevel = level == 0 ? std::nullopt : std::optional(Id<Level>{level});
        });
    });
    loads_ = button(say("Loads…"), say("Target power and duration of each"));
    addFormRow(form, say("Under"), loads_);
    connect(loads_, &QPushButton::clicked, this, [this] { editPart(AskedPart::loads); });
    comparedLoad_ = new QComboBox;
    addFormRow(form, say("Compared under"), comparedLoad_);
    connect(comparedLoad_, &QComboBox::activated, this, [this](int index) {
        const Id<Load> load{comparedLoad_->itemData(index).toLongLong()};
        changeQuestion(titled("Change the load that is compared"), [&](Question& question) {
            question.load = load ? std::optional(load) : std::nullopt;
        });
    });
}

void AskedPage::addPlanFields(QFormLayout*) {
    planForm_->choice(say("Pattern"), &Plan::pattern);
    planForm_->number(say("Amount, g"), &Plan::amount, 0, true);
    planForm_->number(say("Torque, N·m"), &Plan::torque, 0, true);
    planForm_->flag(say("Measure the machine as it stands first"), &Plan::baseline);
}

void AskedPage::editPart(AskedPart part) {
    const auto open = [](QComboBox* box) {
        box->setFocus();
        box->showPopup();
    };
    switch (part) {
    case AskedPart::plain:
    case AskedPart::bench: // the window opens the bench's sheet
        return;
    case AskedPart::levels:
    case AskedPart::secondLevels:
        levels_->focusLevels();
        return;
    case AskedPart::site:
        return open(site_);
    case AskedPart::metric:
        return open(metric_);
    case AskedPart::reference:
        return open(reference_);
    case AskedPart::taken:
        return open(taken_);
    case AskedPart::heldAgainst:
        return open(heldAgainst_);
    case AskedPart::loads:
        if (const Study* study = session_.study()) openDialog(new LoadsSheet(session_, study->id, this));
        return;
    case AskedPart::margin:
    case AskedPart::confidence:
        QLineEdit* field = part == AskedPart::margin ? margin_ : confidence_;
        field->setFocus();
        field->selectAll();
        return;
    }
}

void AskedPage::refresh() {
    const Question* question = session_.question();
    if (!question) return;
    frozen_->setText(
        question->frozen
            ? say("Fixed since the first mount was measured. A change stays in the history.")
            : say("Fix the response before the first mount: choosing it afterwards would be choosing the "
                  "winner."));
    fillSites();
    fillFactors();
    fillHeldAgainst();
    fillComparedLoad();
    metric_->setCurrentIndex(metric_->findData(static_cast<int>(question->metric)));
    studyForm_->show(question->study);
    questionForm_->show(question->id);
    const Plan* plan = planOf(session_.document(), question->study);
    planForm_->show(plan ? std::optional(plan->id) : std::nullopt);
    QStringList names;
    for (const Load* load : loadsOf(session_.document(), question->study)) names << qtext(load->name);
    loads_->setText((names.isEmpty() ? say("Loads") : names.join(", ")) + "…");
    levels_->refresh();
}

void AskedPage::fillSites() {
    site_->clear();
    const Configuration* configuration = session_.configuration();
    if (!configuration) return;
    for (const Site* site : session_.document().where(&Site::configuration, configuration->id))
        site_->addItem(qtext(site->name), static_cast<qlonglong>(site->id.value));
    site_->setCurrentIndex(site_->findData(static_cast<qlonglong>(session_.question()->site.value)));
}

void AskedPage::fillFactors() {
    const auto second = session_.question()->secondFactor;
    secondFactor_->setCurrentIndex(secondFactor_->findData(second ? static_cast<int>(*second) : -1));
}

void AskedPage::fillHeldAgainst() {
    heldAgainst_->clear();
    heldAgainst_->addItem(say("each other, all pairs"), qlonglong{0});
    for (const Level* level : levelsOf(session_.document(), session_.question()->id))
        heldAgainst_->addItem(qtext(level->name), static_cast<qlonglong>(level->id.value));
    const auto now = session_.question()->referenceLevel;
    heldAgainst_->setCurrentIndex(
        std::max(0, heldAgainst_->findData(static_cast<qlonglong>(now ? now->value : 0))));
}

void AskedPage::fillComparedLoad() {
    const Question& question = *session_.question();
    comparedLoad_->clear();
    comparedLoad_->addItem(say("the load of the most mounts"), qlonglong{0});
    for (Id<Load> id : loadChoices(session_.document(), question.study)) {
        const Load& load = *session_.document().find(id);
        comparedLoad_->addItem(qtext(load.name), static_cast<qlonglong>(loadIdentity(load).value));
    }
    const Load* named = session_.document().find(question.load);
    const qlonglong now = named ? loadIdentity(*named).value : 0;
    if (named && comparedLoad_->findData(now) < 0) comparedLoad_->addItem(qtext(named->name), now);
    comparedLoad_->setCurrentIndex(comparedLoad_->findData(now));
}

void AskedPage::changeQuestion(const Message& title, const std::function<void(Question&)>& change) {
    const Question* question = session_.question();
    if (!question) return;
    Question changed = *question;
    change(changed);
    if (changed == *question) return;
    Edit edit(session_.document(), title);
    edit.put(changed);
    session_.perform(edit.finish());
}

} // namespace ibuki
