// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/question/question_view.h"

#include "app/drawn/theme.h"
#include "app/forms/ask.h"
#include "app/forms/rehearsal_panel.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/question/asked_page.h"
#include "app/question/board_page.h"
#include "app/question/chances_page.h"
#include "app/question/part_sheet.h"
#include "app/question/protocol_page.h"
#include "app/question/sentence_bar.h"
#include "app/say.h"
#include "core/domain/lookup.h"
#include "core/evidence/response.h"
#include "core/setup/plan_setup.h"
#include "core/setup/question_setup.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

QuestionView::QuestionView(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    explain(this, Topic::chance);
    layout->addWidget(makeHead());
    body_ = new QWidget;
    auto* body = new QVBoxLayout(body_);
    body->setContentsMargins(0, 0, 0, 0);
    pages_ = new QStackedWidget;
    for (int page = 0; page <= static_cast<int>(Page::rehearsal); ++page) {
        auto* place = new QWidget;
        (new QVBoxLayout(place))->setContentsMargins(0, 0, 0, 0);
        pages_->addWidget(place);
    }
    body->addWidget(makeQuestionRow());
    body->addWidget(pages_, 1);
    layout->addWidget(body_, 1);
    layout->addWidget(makeEmpty(), 1);
    connect(pages_, &QStackedWidget::currentChanged, this, [this] { refresh(); });
    refresh();
}

QWidget* QuestionView::makeHead() {
    auto* top = new QVBoxLayout;
    top->setContentsMargins(18, 10, 18, 10);
    sentence_ = new SentenceBar;
    top->addWidget(sentence_);
    tip_ = new Tip(QStringLiteral("sentence"),
                   say("What is underlined in the sentence is changed there: click it, or Tab and Space."));
    connect(sentence_, &SentenceBar::partMeant, this, &QuestionView::meanPart);
    connect(sentence_, &SentenceBar::partMeant, tip_, &Tip::done);
    top->addWidget(tip_);
    auto* row = new QHBoxLayout;
    count_ = new QLabel;
    setTextFont(count_, 1.1, QFont::DemiBold);
    count_->setMinimumWidth(count_->fontMetrics().horizontalAdvance(say("12 mounts of each ")));
    mounts_ = new QSlider(Qt::Horizontal);
    mounts_->setRange(1, sensibleMounts);
    mounts_->setPageStep(1);
    mounts_->setFixedWidth(170);
    mounts_->setAccessibleName(say("Mounts of each level"));
    mounts_->setObjectName("Mounts of each level");
    connect(mounts_, &QSlider::valueChanged, this, &QuestionView::previewMounts);
    connect(mounts_, &QSlider::sliderReleased, this, &QuestionView::takeMounts);
    live_ = new QLabel;
    live_->setWordWrap(true);
    live_->setAccessibleName(say("What so many mounts settle and cost"));
    live_->setObjectName("Live figures");
    explain(live_, Topic::chance);
    row->addWidget(count_);
    row->addWidget(mounts_);
    row->addSpacing(10);
    row->addWidget(live_, 1);
    top->addLayout(row);
    hint_ = quietLabel();
    top->addWidget(hint_);
    return card(top);
}

QWidget* QuestionView::makeQuestionRow() {
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(pageSwitch(pages_, {say("Asked"), say("Chances"), say("Evenings"), say("Protocol"),
                                       say("Rehearsal")}),
                   1);
    question_ = new QComboBox;
    question_->setAccessibleName(say("Question of the study"));
    question_->setObjectName("Question of the study");
    question_->setMinimumContentsLength(18);
    connect(question_, &QComboBox::activated, this, [this](int index) {
        Selection selection = session_.selection();
        selection.question = Id<Question>{question_->itemData(index).toLongLong()};
        session_.select(selection);
    });
    row->addWidget(question_);
    auto* another = button(say("Ask another…"), say("Another site of the same mounts, or another response"));
    connect(another, &QPushButton::clicked, this, &QuestionView::askAnother);
    auto* drop =
        button(say("Drop question"), say("Takes this question out of the study; the first one stays"));
    connect(drop, &QPushButton::clicked, this, &QuestionView::dropQuestion);
    row->addWidget(another);
    row->addWidget(drop);
    return bar;
}

QWidget* QuestionView::makeEmpty() {
    empty_ = new QWidget;
    auto* layout = new QVBoxLayout(empty_);
    layout->addStretch(1);
    emptyText_ = new QLabel;
    emptyText_->setAlignment(Qt::AlignCenter);
    emptyText_->setWordWrap(true);
    emptyButton_ = new QPushButton;
    emptyButton_->setProperty("main", true);
    layout->addWidget(emptyText_);
    layout->addWidget(emptyButton_, 0, Qt::AlignCenter);
    layout->addStretch(2);
    connect(emptyButton_, &QPushButton::clicked, this, [this] {
        if (session_.bench())
            emit studyWanted();
        else
            emit benchWanted();
    });
    return empty_;
}

template <class Widget> Widget& QuestionView::made(Widget*& page, Page place) {
    if (!page) {
        page = new Widget(session_);
        pages_->widget(static_cast<int>(place))->layout()->addWidget(page);
        page->show(); // now, not once the loop comes round
    }
    return *page;
}

ChancesPage& QuestionView::chances() {
    const bool isNew = !chances_;
    ChancesPage& page = made(chances_, Page::chances);
    if (isNew) connect(&page, &ChancesPage::mountsMeant, mounts_, &QSlider::setValue);
    return page;
}

BoardPage& QuestionView::board() { return made(board_, Page::board); }

void QuestionView::showPage(Page page) { pages_->setCurrentIndex(static_cast<int>(page)); }

void QuestionView::refresh() {
    const Question* question = session_.question();
    body_->setVisible(question != nullptr);
    empty_->setVisible(question == nullptr);
    for (QWidget* widget : std::initializer_list<QWidget*>{count_, mounts_, live_})
        widget->setVisible(question != nullptr);
    if (!question) {
        sentence_->showText(say("Nothing is asked yet"));
        hint_->setText(
            say("A study says what is compared, where, under which load, and which difference matters."));
        hint_->show();
        emptyText_->setText(session_.bench()
                                ? say("The bench is described. Next: the question.")
                                : say("First describe the bench: the layers that the heat crosses."));
        emptyButton_->setText(session_.bench() ? say("Ask a question") : say("Describe a bench"));
        return;
    }
    sentence_->show(studySentencePieces(session_.document(), *question));
    hint_->hide();
    fillQuestions();
    // Worked out once a change, not once a page.
    if (!figures_ || figuresOf_ != std::pair(session_.revision(), question->id)) {
        figures_ = planFigures(session_.document(), question, session_.now());
        figuresOf_ = {session_.revision(), question->id};
    }
    const PlanFigures& figures = *figures_;
    const QSignalBlocker quiet(mounts_);
    mounts_->setRange(1, std::max({sensibleMounts, figures.plan.mountsPerLevel,
                                   figures.analysis ? figures.analysis->neededMounts.value_or(0) : 0}));
    mounts_->setValue(figures.plan.mountsPerLevel);
    showFigures(figures);
    refreshPage(figures);
}

void QuestionView::showFigures(const PlanFigures& figures) {
    const int n = figures.plan.mountsPerLevel;
    count_->setText(sayMany("{count} mount of each", "{count} mounts of each", n));
    live_->setText(figures.analysis ? powerLine(*figures.analysis, *session_.question()) : figures.reason);
}

void QuestionView::refreshPage(const PlanFigures& figures) {
    switch (static_cast<Page>(pages_->currentIndex())) {
    case Page::asked:
        made(asked_, Page::asked).refresh();
        break;
    case Page::chances:
        chances().refresh(figures);
        break;
    case Page::board:
        board().refresh(figures);
        break;
    case Page::protocol:
        made(protocol_, Page::protocol).refresh();
        break;
    case Page::rehearsal:
        made(rehearsal_, Page::rehearsal).refresh();
        break;
    }
}

void QuestionView::fillQuestions() {
    question_->clear();
    for (const Question* question : session_.document().where(&Question::study, session_.question()->study)) {
        const Site* site = session_.document().find(question->site);
        question_->addItem(QString("%1: %2").arg(site ? qtext(site->name) : say("a site"),
                                                 sayText(responseTitle(*question))),
                           static_cast<qlonglong>(question->id.value));
    }
    question_->setCurrentIndex(question_->findData(static_cast<qlonglong>(session_.question()->id.value)));
    question_->setVisible(question_->count() > 1);
}

/// While the slider moves the figures follow; the plan takes the number once it rests.
void QuestionView::previewMounts(int mounts) {
    const PlanFigures figures = planFigures(session_.document(), session_.question(), session_.now(), mounts);
    showFigures(figures);
    if (pages_->currentIndex() == static_cast<int>(Page::chances)) chances().refresh(figures);
    if (!mounts_->isSliderDown()) takeMounts();
}

void QuestionView::takeMounts() {
    const Question* question = session_.question();
    if (!question) return;
    Plan plan = planFor(session_.document(), question->study);
    if (plan.id && plan.mountsPerLevel == mounts_->value()) return;
    plan.mountsPerLevel = mounts_->value();
    Edit edit(session_.document(), titled("Plan {mounts} mounts of each", {{"mounts", plan.mountsPerLevel}}));
    putPlan(edit, plan);
    session_.perform(edit.finish());
}

void QuestionView::meanPart(AskedPart part) {
    if (part == AskedPart::bench) {
        emit benchSheetWanted();
        return;
    }
    openPart(session_, part, this, sentence_->below(part));
}

void QuestionView::askAnother() {
    const Question* question = session_.question();
    const Configuration* configuration = session_.configuration();
    if (!question || !configuration) return;
    QStringList choices{say("the same levels, by another response")};
    std::vector<Id<Site>> sites{question->site};
    for (const Site* site : session_.document().where(&Site::configuration, configuration->id))
        if (site->id != question->site) {
            choices << say("other levels, at ") + qtext(site->name);
            sites.push_back(site->id);
        }
    askChoice(this, {say("Ask another question of the same mounts"), say("Ask about"), {}}, choices,
              [this, sites](int index) {
                  const Question* asked = session_.question();
                  if (!asked || index < 0) return;
                  Edit edit(session_.document(), titled("Ask another question"));
                  Selection selection = session_.selection();
                  selection.question =
                      addQuestion(edit, asked->id, sites[static_cast<std::size_t>(index)], index == 0);
                  if (session_.perform(edit.finish())) session_.select(selection);
              });
}

void QuestionView::dropQuestion() {
    const Question* question = session_.question();
    if (!question) return;
    Edit edit(session_.document(), titled("Drop a question"));
    removeQuestion(edit, question->id);
    if (edit.finish().empty())
        session_.refuse(say("The study's first question stays. Change it, or close the study."));
    else
        session_.perform(edit.finish());
}

} // namespace ibuki
