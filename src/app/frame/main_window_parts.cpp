// SPDX-License-Identifier: GPL-3.0-or-later
// What the main window is made of: its commands, its frame, and the views, each made when first asked for.

#include "app/frame/main_window.h"

#include "app/ageing/ageing_view.h"
#include "app/bench/bench_page.h"
#include "app/bench/bench_view.h"
#include "app/forms/tip.h"
#include "app/forms/topic.h"
#include "app/forms/widgets.h"
#include "app/frame/command_palette.h"
#include "app/frame/stage_bar.h"
#include "app/frame/start_page.h"
#include "app/frame/strip.h"
#include "app/frame/tape.h"
#include "app/frame/top_line.h"
#include "app/frame/what_is_this.h"
#include "app/heat/heat_view.h"
#include "app/jobs/job_progress.h"
#include "app/paper/paper_view.h"
#include "app/peel/peel_view.h"
#include "app/peel/picture_page.h"
#include "app/question/board_page.h"
#include "app/question/question_view.h"
#include "app/say.h"
#include "app/shelf/shelf_view.h"
#include "app/verdict/verdict_view.h"

#include <QAction>
#include <QHBoxLayout>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace ibuki {

QAction* MainWindow::addCommand(const QString& text, const QKeySequence& key, std::function<void()> what) {
    auto* action = new QAction(text, this);
    action->setShortcut(key);
    connect(action, &QAction::triggered, this, std::move(what));
    addAction(action);
    commands_ << action;
    return action;
}

void MainWindow::makeProjectActions() {
    new_ = addCommand(say("New project…"), QKeySequence::New, [this] { newProject(); });
    open_ = addCommand(say("Open project…"), QKeySequence::Open, [this] { openProject(); });
    demo_ = addCommand(say("Demo"), {}, [this] { openDemo(); });
    logs_ = addCommand(say("Look at logs…"), QKeySequence("Ctrl+Shift+I"), [this] { lookAtLogs(); });
    practise_ = addCommand(say("Practise…"), {}, [this] { askPractice(); });
    QAction* saveAside = addCommand(say("Save a copy…"), QKeySequence::SaveAs, [this] { saveCopy(); });
    QAction* closeIt =
        addCommand(say("Close project"), QKeySequence::Close, [this] { session_.closeProject(); });
    projectActions_ = {new_, open_, demo_, logs_, practise_, saveAside, closeIt};
    benchActions_ = {addCommand(say("Describe a bench…"), {}, [this] { newBench(); }),
                     addCommand(say("Bench sheet…"), QKeySequence("Ctrl+B"), [this] { benchSheet(); })};
    studyActions_ = {addCommand(say("New study…"), {}, [this] { newStudy(); }),
                     addCommand(say("Duplicate study"), {}, [this] { duplicateThisStudy(); }),
                     addCommand(say("Close or reopen study"), {}, [this] { closeThisStudy(); })};
}

void MainWindow::makeActions() {
    makeProjectActions();
    int number = 0;
    for (const StageRow& row : stageTable())
        addCommand(say(row.go), QKeySequence(QStringLiteral("Ctrl+%1").arg(++number)),
                   [this, stage = row.stage] { showStage(stage); });
    addCommand(say("Open what to do next"), QKeySequence("Ctrl+Space"), [this] { tape_->openNext(); });
    addCommand(say("Hold this mount beside the next"), QKeySequence("Ctrl+H"), [this] {
        Selection selection = session_.selection();
        selection.beside = selection.beside ? std::nullopt : selection.mount;
        session_.select(selection);
    });
    addCommand(say("Put the plan on the tape"), {}, [this] {
        showStage(Stage::question);
        questionView().showPage(QuestionView::Page::board);
        questionView().board().layOnTape();
    });
    addCommand(say("Calendar file…"), {}, [this] {
        showStage(Stage::question);
        questionView().showPage(QuestionView::Page::board);
        questionView().board().chooseCalendar();
    });
    makeRunActions();
    for (const auto& [action, key] :
         {std::pair{session_.undoStack().createUndoAction(this, say("Undo")), QKeySequence::Undo},
          std::pair{session_.undoStack().createRedoAction(this, say("Redo")), QKeySequence::Redo}}) {
        action->setShortcuts(key);
        addAction(action);
        commands_ << action;
    }
    makeLookActions();
    addCommand(say("Leave Ibuki"), QKeySequence::Quit, [this] { close(); });
}

void MainWindow::makeRunActions() {
    addCommand(say("Record a run…"), QKeySequence("Ctrl+R"), [this] {
        showStage(Stage::bench);
        recordNext();
    });
    addCommand(say("Check-up of the bench…"), {}, [this] {
        showStage(Stage::bench);
        if (session_.bench()) benchPage().record({{}, {}, true});
    });
    addCommand(say("Record without a mount…"), {}, [this] {
        showStage(Stage::bench);
        if (session_.bench()) benchPage().record({});
    });
    addCommand(say("Add a source to the run…"), {}, [this] { benchPage().addSource(); });
    addCommand(say("Drop a source of the run…"), {}, [this] { benchPage().dropSource(); });
    addCommand(say("Begin the run's steps again"), {}, [this] { live_->startOver(); });
    addCommand(say("Small window of the run"), {}, [this] { benchPage().showCompact(); });
    addCommand(say("Bring in logs…"), QKeySequence("Ctrl+I"), [this] {
        showStage(Stage::bench);
        benchView().chooseLogs();
    });
    addCommand(say("Pictures of the joint…"), QKeySequence("Ctrl+P"), [this] {
        showStage(Stage::peel);
        peelView().pictures().choosePictures();
    });
    addCommand(say("When to come back…"), QKeySequence("Ctrl+Shift+D"), [this] {
        showStage(Stage::ageing);
        ageingView().showDue();
    });
    addCommand(say("Size of kept pictures…"), {}, [this] {
        showStage(Stage::peel);
        peelView().pictures().askKeptSize();
    });
    addCommand(say("Paste a picture of the joint"), QKeySequence("Ctrl+Shift+V"), [this] {
        showStage(Stage::peel);
        peelView().pictures().pastePicture();
    });
}

void MainWindow::makeLookActions() {
    addCommand(say("Light or dark room"), QKeySequence("Ctrl+L"),
               [this] { setLook(shade() == Shade::light ? Shade::dark : Shade::light, textScale_); });
    addCommand(say("Larger text"), QKeySequence::ZoomIn,
               [this] { setLook(shade(), std::min(2.0, textScale_ + 0.1)); });
    addCommand(say("Smaller text"), QKeySequence::ZoomOut,
               [this] { setLook(shade(), std::max(0.8, textScale_ - 0.1)); });
    addCommand(say("Usual text"), QKeySequence("Ctrl+0"), [this] { setLook(shade(), 1.0); });
    what_ = new WhatIsThis(this);
    addCommand(say("What is this? (F1 on a figure)"), {},
               [this] { what_->openFor(QApplication::focusWidget()); });
    addCommand(say("Show the tips again"), {}, [] { Tip::showAllAgain(); });
    addCommand(say("Find or do…"), QKeySequence("Ctrl+K"),
               [this] { openDialog(new CommandPalette(commands_, this)); });
}

void MainWindow::makeViews() {
    pages_ = new QStackedWidget;
    auto* start = new StartPage({new_, logs_, open_, demo_, practise_}, session_.jobs());
    connect(start, &StartPage::projectWanted, this, &MainWindow::openAt);
    pages_->addWidget(start);
    work_ = new QWidget;
    work_->setLayout(makeWork());
    pages_->addWidget(work_);
    auto* outer = new QWidget;
    auto* outerLayout = new QVBoxLayout(outer);
    outerLayout->setContentsMargins(0, 0, 0, 0);
    outerLayout->setSpacing(0);
    outerLayout->addWidget(pages_, 1);
    makeNoticeBar();
    noticeBar_->setParent(outer);
    setCentralWidget(outer);
    outer->installEventFilter(this);
    stages_->setFocus();
    connectParts();
}

/// Top line, strip, stages with their views, tape: a view is made when it is first shown.
QLayout* MainWindow::makeWork() {
    top_ = new TopLine(session_, projectActions_, benchActions_, studyActions_);
    strip_ = new Strip(session_);
    tape_ = new Tape(session_);
    explain(strip_, Topic::heatPath);
    explain(tape_, Topic::tape);
    std::vector<StageBar::Stage> bar;
    for (const StageRow& row : stageTable()) bar.push_back({say(row.name), say(row.what)});
    stages_ = new StageBar(bar);
    views_ = new QStackedWidget;
    question_ = nullptr;
    shelf_ = nullptr;
    bench_ = nullptr;
    verdict_ = nullptr;
    peel_ = nullptr;
    ageing_ = nullptr;
    heat_ = nullptr;
    paper_ = nullptr;
    for (std::size_t i = 0; i < stageTable().size(); ++i) views_->addWidget(new QWidget);

    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(0, 6, 0, 0);
    layout->setSpacing(6);
    auto* topRows = new QVBoxLayout;
    topRows->setContentsMargins(12, 0, 12, 0);
    topRows->addWidget(top_);
    practiceBar_ = button({}, say("Commit to a sentence; then the truth is shown beside it"));
    practiceBar_->setObjectName("Practice");
    connect(practiceBar_, &QPushButton::clicked, this, &MainWindow::openPractice);
    topRows->addWidget(practiceBar_);
    topRows->addWidget(strip_);
    layout->addLayout(topRows);
    auto* middle = new QHBoxLayout;
    middle->setContentsMargins(12, 0, 12, 0);
    middle->addWidget(stages_);
    middle->addWidget(views_, 1);
    layout->addLayout(middle, 1);
    layout->addWidget(tape_);
    return layout;
}

void MainWindow::makeNoticeBar() {
    noticeBar_ = new QFrame;
    noticeBar_->setProperty("card", true);
    auto* noticeLayout = new QHBoxLayout(noticeBar_);
    noticeLayout->setContentsMargins(12, 4, 6, 4);
    notice_ = new QLabel;
    notice_->setWordWrap(true);
    notice_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    notice_->setAccessibleName(say("Notice"));
    notice_->setObjectName("Notice");
    auto* dismiss = button(say("Dismiss"), QStringLiteral("Esc"));
    dismiss->setProperty("quiet", true);
    dismiss->setShortcut(Qt::Key_Escape);
    connect(dismiss, &QPushButton::clicked, noticeBar_, &QWidget::hide);
    noticeLayout->addWidget(notice_, 1);
    noticeLayout->addWidget(dismiss);
    noticeBar_->hide();
}

void MainWindow::connectParts() {
    connect(stages_, &StageBar::chosen, this, [this](int index) { showStage(static_cast<Stage>(index)); });
    connect(strip_, &Strip::layerOpened, this, &MainWindow::openLayer);
    connect(strip_, &Strip::siteOpened, this, &MainWindow::openSite);
    connect(strip_, &Strip::benchWanted, this, &MainWindow::newBench);
    connect(&session_, &Session::workBegun, this,
            [this](const QString& title) { showProgress(session_.work(), title, this); });
    connect(tape_, &Tape::mountOpened, this, &MainWindow::openMount);
    connect(tape_, &Tape::peelOpened, this, &MainWindow::openPeel);
    connect(tape_, &Tape::slotOpened, this, &MainWindow::openSlot);
    connect(tape_, &Tape::followUpOpened, this, &MainWindow::openFollowUp);
    connect(tape_, &Tape::draftOpened, this, [this] {
        showStage(Stage::question);
        questionView().showPage(QuestionView::Page::board);
    });
}

std::span<const MainWindow::StageRow> MainWindow::stageTable() {
    using words::mark;
    static const StageRow rows[] = {
        {Stage::question, mark("Question"), mark("What is compared, and what matters"),
         mark("Go to Question"), [](MainWindow& window) { window.questionView().refresh(); }},
        {Stage::shelf, mark("Shelf"), mark("Materials and lots"), mark("Go to Shelf"),
         [](MainWindow& window) { window.shelfView().refresh(); }},
        {Stage::bench, mark("Bench"), mark("Logs, traces and reduced figures"), mark("Go to Bench"),
         [](MainWindow& window) { window.benchPage().refresh(); }},
        {Stage::peel, mark("Peel"), mark("What the joint looked like, and what was covered"),
         mark("Go to Peel"), [](MainWindow& window) { window.peelView().refresh(); }},
        {Stage::verdict, mark("Verdict"), mark("Who can be told apart from whom"), mark("Go to Verdict"),
         [](MainWindow& window) { window.verdictView().refresh(); }},
        {Stage::ageing, mark("Drift"), mark("What time does to the mounts, and when to come back"),
         mark("Go to Drift"), [](MainWindow& window) { window.ageingView().refresh(); }},
        {Stage::heatPath, mark("Heat path"), mark("Why it is so hot, and what would change it"),
         mark("Go to Heat path"), [](MainWindow& window) { window.heatView().refresh(); }},
        {Stage::paper, mark("Paper"), mark("The report and exports"), mark("Go to Paper"),
         [](MainWindow& window) { window.paperView().refresh(); }}};
    return rows;
}

void MainWindow::put(Stage stage, QWidget* view) {
    const int index = static_cast<int>(stage);
    const bool current = views_->currentIndex() == index;
    QWidget* placeholder = views_->widget(index);
    views_->insertWidget(index, view);
    views_->removeWidget(placeholder);
    delete placeholder;
    if (current) views_->setCurrentIndex(index);
}

QuestionView& MainWindow::questionView() {
    if (question_) return *question_;
    put(Stage::question, question_ = new QuestionView(session_));
    connect(question_, &QuestionView::benchSheetWanted, this, &MainWindow::benchSheet);
    connect(question_, &QuestionView::benchWanted, this, &MainWindow::newBench);
    connect(question_, &QuestionView::studyWanted, this, &MainWindow::newStudy);
    return *question_;
}

ShelfView& MainWindow::shelfView() {
    if (!shelf_) put(Stage::shelf, shelf_ = new ShelfView(session_));
    return *shelf_;
}

BenchPage& MainWindow::benchPage() {
    if (bench_) return *bench_;
    put(Stage::bench, bench_ = new BenchPage(session_, *live_));
    connect(bench_, &BenchPage::peelWanted, this, &MainWindow::openPeel);
    connect(&bench_->view(), &BenchView::benchSheetWanted, this, &MainWindow::benchSheet);
    connect(&bench_->view(), &BenchView::stepTaken, this, &MainWindow::takeStep);
    return *bench_;
}

BenchView& MainWindow::benchView() { return benchPage().view(); }

VerdictView& MainWindow::verdictView() {
    if (verdict_) return *verdict_;
    put(Stage::verdict, verdict_ = new VerdictView(session_));
    connect(verdict_, &VerdictView::mountOpened, this, &MainWindow::openMount);
    connect(verdict_, &VerdictView::stepTaken, this, &MainWindow::takeStep);
    return *verdict_;
}

PeelView& MainWindow::peelView() {
    if (!peel_) put(Stage::peel, peel_ = new PeelView(session_));
    return *peel_;
}

AgeingView& MainWindow::ageingView() {
    if (ageing_) return *ageing_;
    put(Stage::ageing, ageing_ = new AgeingView(session_));
    connect(ageing_, &AgeingView::checkWanted, this, &MainWindow::openFollowUp);
    return *ageing_;
}

HeatView& MainWindow::heatView() {
    if (heat_) return *heat_;
    heat_ = new HeatView(session_);
    connect(heat_, &HeatView::turnedOver, strip_, &Strip::turnOver);
    put(Stage::heatPath, heat_);
    return *heat_;
}

PaperView& MainWindow::paperView() {
    if (!paper_) put(Stage::paper, paper_ = new PaperView(session_));
    return *paper_;
}

} // namespace ibuki
