// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/main_window.h"

#include "app/ageing/ageing_view.h"
#include "app/bench/bench_page.h"
#include "app/bench/bench_view.h"
#include "app/forms/ask.h"
#include "app/forms/bench_dialogs.h"
#include "app/forms/new_study_dialog.h"
#include "app/forms/sheet_complaint.h"
#include "app/forms/widgets.h"
#include "app/frame/failure.h"
#include "app/frame/stage_bar.h"
#include "app/frame/start_page.h"
#include "app/frame/strip.h"
#include "app/frame/tape.h"
#include "app/frame/top_line.h"
#include "app/heat/heat_view.h"
#include "app/paper/paper_view.h"
#include "app/peel/peel_view.h"
#include "app/question/question_view.h"
#include "app/say.h"
#include "app/shelf/shelf_view.h"
#include "app/verdict/practice_sheet.h"
#include "app/verdict/verdict_view.h"
#include "core/domain/words.h"
#include "core/practice/practice.h"
#include "core/setup/study_setup.h"

#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QDir>
#include <QDragEnterEvent>
#include <QHBoxLayout>
#include <QMimeData>
#include <QRandomGenerator>
#include <QSettings>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QVBoxLayout>

namespace ibuki {

namespace {

/// In the user's documents, which not every account has yet, under a name that is free. numbered: with the
/// place of a number.
QString freePath(const QString& first, const QString& numbered) {
    const QDir folder(QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation));
    folder.mkpath(QStringLiteral("."));
    QString name = first;
    for (int number = 2; folder.exists(name); ++number) name = numbered.arg(number);
    return folder.filePath(name);
}

QString newProjectPath() { return freePath(say("bench.ibuki"), say("bench %1.ibuki")); }

} // namespace

MainWindow::MainWindow(const QString& samplePath, QWidget* parent)
    : QMainWindow(parent), samplePath_(samplePath), live_(std::make_unique<LiveRun>(session_)) {
    setWindowTitle(say("Ibuki"));
    setAcceptDrops(true);
    resize(1280, 800);
    setMinimumSize(900, 600);
    refresh_.setSingleShot(true);
    connect(&refresh_, &QTimer::timeout, this, &MainWindow::refreshNow);
    makeActions();
    makeViews();
    for (auto signal : {&Session::documentChanged, &Session::selectionChanged, &Session::projectChanged})
        connect(&session_, signal, this, &MainWindow::refreshSoon);
    connect(&session_, &Session::noticePosted, this, &MainWindow::showNotice);
    connect(&session_, &Session::refused, this, [this](const QString& why) {
        if (QDialog* sheet = openSheet())
            complainIn(*sheet, why);
        else
            showNotice(why);
    });
    connect(&session_, &Session::refusalOver, this, [this] {
        noticeBar_->hide();
        if (QDialog* sheet = openSheet()) endComplaint(*sheet);
    });
    refreshNow();
}

MainWindow::~MainWindow() {
    // Views refer to the session, which as a member would go before the child widgets do.
    delete takeCentralWidget();
}

Stage MainWindow::stage() const { return static_cast<Stage>(views_->currentIndex()); }

void MainWindow::showStage(Stage stage) {
    views_->setCurrentIndex(static_cast<int>(stage));
    stages_->setCurrent(static_cast<int>(stage));
    refreshNow();
}

void MainWindow::refreshSoon() {
    if (!refresh_.isActive()) refresh_.start(0);
}

void MainWindow::refreshNow() {
    refresh_.stop();
    pages_->setCurrentIndex(session_.isOpen() ? 1 : 0);
    setWindowTitle(session_.isOpen() ? QFileInfo(session_.path()).completeBaseName() + say(" – Ibuki")
                                     : say("Ibuki"));
    if (!session_.isOpen()) return;
    top_->refresh();
    const Practice* practice =
        session_.study() ? practiceOf(session_.document(), session_.study()->id) : nullptr;
    practiceBar_->setVisible(practice);
    if (practice)
        practiceBar_->setText(practice->committedAt
                                  ? say("Practice: what was true")
                                  : say("Practice: the truth is sealed. Say what you conclude…"));
    stageTable()[static_cast<std::size_t>(stage())].refresh(*this);
}

void MainWindow::showNotice(const QString& notice) {
    notice_->setText(notice);
    noticeBar_->show();
    placeNotice();
}

/// Over the strip's last line, so that nothing below moves from under a hand that is about to press it.
void MainWindow::placeNotice() {
    const int side = 12;
    const int width = centralWidget()->width() - 2 * side;
    const QLayout& inside = *noticeBar_->layout();
    const int height = inside.hasHeightForWidth() ? inside.heightForWidth(width) : inside.sizeHint().height();
    const bool isWorking = pages_->currentWidget() == work_;
    const int end = strip_->mapTo(centralWidget(), QPoint(0, strip_->height())).y();
    const int top = isWorking ? end - notice_->fontMetrics().height() - 6 : 0;
    noticeBar_->setGeometry(side, top, width, height);
    noticeBar_->raise();
}

void MainWindow::newProject() {
    askFile(this,
            {FileWish::Kind::save, say("New project"), newProjectPath(), say("Ibuki projects (*.ibuki)")},
            [this](const QString& path) {
                if (!createAt(path)) return;
                showStage(Stage::question);
                newBench();
            });
}

bool MainWindow::createAt(const QString& path) {
    if (!session_.createProject(path.endsWith(".ibuki") ? path : path + ".ibuki")) return false;
    remember();
    return true;
}

void MainWindow::askPractice() {
    QStringList scenarios;
    for (std::size_t i = 0; i < Words<Scenario>::all.size(); ++i)
        scenarios << sayTerm(Words<Scenario>::all[i]) + ": " + sayText(purposeOf(static_cast<Scenario>(i)));
    askChoice(
        this,
        {say("Practise"), say("Each has a truth of its own, sealed until you commit to a sentence."), {}},
        scenarios, [this](int which) {
            practise(static_cast<Scenario>(which), QRandomGenerator::global()->bounded(1, 1'000'000),
                     freePath(say("practice.ibuki"), say("practice %1.ibuki")));
        });
}

bool MainWindow::practise(Scenario scenario, int seed, const QString& path) {
    if (!createAt(path)) return false;
    Edit edit(session_.document(), titled("A bench to practise on"));
    NewPractice wanted;
    wanted.scenario = scenario;
    wanted.seed = seed;
    wanted.wording = words::text;
    const Id<Study> study = addPractice(edit, wanted, session_.now());
    if (!session_.acquire(edit.finish())) return false;
    Selection selection;
    selection.bench = session_.document().find(study)->bench;
    selection.study = study;
    session_.select(selection);
    showStage(Stage::question);
    return true;
}

void MainWindow::openPractice() {
    const Practice* practice =
        session_.study() ? practiceOf(session_.document(), session_.study()->id) : nullptr;
    if (practice) openDialog(new PracticeSheet(session_, practice->id, this));
}

void MainWindow::lookAtLogs() {
    askFiles(this, {FileWish::Kind::openMany, say("Look at logs"), {}, BenchView::logFilter()},
             [this](const QStringList& files) { startFrom(files); });
}

void MainWindow::startFrom(const QStringList& files) {
    if (session_.isOpen()) {
        showStage(Stage::bench);
        benchView().bringIn(files);
        return;
    }
    askFile(this,
            {FileWish::Kind::save, say("A project for these logs"), newProjectPath(),
             say("Ibuki projects (*.ibuki)")},
            [this, files](const QString& path) {
                if (!createAt(path)) return;
                showStage(Stage::bench);
                benchView().bringIn(files);
            });
}

void MainWindow::openProject() {
    askFile(this,
            {FileWish::Kind::open, say("Open project"), {}, say("Ibuki projects (*.ibuki);;All files (*)")},
            [this](const QString& path) { openAt(path); });
}

void MainWindow::openAt(const QString& path) {
    if (!session_.openProject(path)) return;
    remember();
    showStage(Stage::verdict);
}

void MainWindow::giveUp(const QString& what) {
    const QString path = session_.path();
    for (QDialog* sheet : findChildren<QDialog*>()) sheet->close();
    guarded([this] { session_.closeProject(); }, [](const QString&) {});
    const QString report = writeFailureReport(
        QStandardPaths::writableLocation(QStandardPaths::AppDataLocation), what + QChar('\n') + path);
    showNotice(
        say("Internal error: %1. Everything done before it is saved and the project was closed; open it "
            "again. %2")
            .arg(what.endsWith('.') ? what.chopped(1) : what, report.isEmpty()
                                                                  ? say("The report could not be written.")
                                                                  : say("The report is in %1.").arg(report)));
}

bool MainWindow::openDemo(const QString& copyTo) {
    QString path = copyTo;
    if (path.isEmpty()) {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
        QDir().mkpath(folder);
        path = folder + "/kittiwake.ibuki";
    }
    if (!QFileInfo::exists(path) && !QFile::copy(samplePath_, path)) {
        session_.post(say("The demo project is not where it should be (%1). Build or install Ibuki again.")
                          .arg(samplePath_));
        return false;
    }
    QFile::setPermissions(path, QFile::permissions(path) | QFileDevice::WriteOwner);
    if (!session_.openProject(path)) return false;
    showStage(Stage::verdict);
    return true;
}

void MainWindow::openLast() {
    const QString last = StartPage::recent().value(0);
    if (last.isEmpty() || !QFileInfo::exists(last)) return;
    const int here = QSettings().value("stage", static_cast<int>(Stage::verdict)).toInt();
    if (session_.openProject(last))
        showStage(static_cast<Stage>(std::clamp(here, 0, static_cast<int>(stageTable().size()) - 1)));
}

void MainWindow::saveCopy() {
    if (!session_.isOpen()) return;
    const QString name = say("%1 copy.ibuki").arg(QFileInfo(session_.path()).completeBaseName());
    askFile(this, {FileWish::Kind::save, say("Save a copy"), name, say("Ibuki projects (*.ibuki)")},
            [this](const QString& path) {
                if (session_.saveCopy(path)) session_.post(say("Copied to %1").arg(path));
            });
}

void MainWindow::newBench() {
    if (!session_.isOpen()) return;
    openDialog(new NewBenchDialog(session_, this));
}

void MainWindow::benchSheet() {
    if (!session_.bench()) {
        newBench();
        return;
    }
    openDialog(new BenchSheet(session_, this));
}

void MainWindow::newStudy() {
    if (!session_.isOpen()) return;
    openDialog(new NewStudyDialog(session_, this));
}

void MainWindow::duplicateThisStudy() {
    const Study* study = session_.study();
    if (!study) return;
    Edit edit(session_.document(), titled("Duplicate {study}", {{"study", study->name}}));
    Selection selection = session_.selection();
    selection.study = duplicateStudy(edit, study->id);
    selection.mount.reset();
    if (session_.perform(edit.finish())) session_.select(selection);
}

void MainWindow::closeThisStudy() {
    const Study* study = session_.study();
    if (!study) return;
    Study changed = *study;
    const bool reopen = study->state == StudyState::closed;
    changed.state = reopen ? StudyState::measuring : StudyState::closed;
    Edit edit(session_.document(),
              titled(reopen ? words::mark("Reopen {study}") : words::mark("Close {study}"),
                     {{"study", study->name}}));
    edit.put(changed);
    session_.perform(edit.finish());
}

void MainWindow::openLayer(Id<Layer> layer) { openDialog(new LayerSheet(session_, layer, this)); }

void MainWindow::openSite(Id<Site> site) { openDialog(new SiteSheet(session_, site, this)); }

void MainWindow::openMount(Id<Mount> mount) {
    session_.selectMount(mount);
    if (stage() != Stage::verdict && stage() != Stage::shelf && stage() != Stage::peel
        && stage() != Stage::ageing)
        showStage(Stage::bench);
}

void MainWindow::openPeel(Id<Mount> mount) {
    session_.selectMount(mount);
    showStage(Stage::peel);
}

void MainWindow::openFollowUp(Id<FollowUp> followUp) {
    const FollowUp* later = session_.document().find(followUp);
    const Slot* slot = later ? session_.document().find(later->slot) : nullptr;
    if (!slot) return;
    Selection selection = session_.selection();
    selection.followUp = followUp;
    selection.slot = slot->mount ? std::nullopt : std::optional(slot->id);
    selection.mount = slot->mount;
    session_.select(selection);
    showStage(Stage::bench);
}

void MainWindow::takeStep(StudyNeeds needs) {
    if (needs == StudyNeeds::log) {
        showStage(Stage::bench);
        benchView().chooseLogs();
    } else {
        tape_->openNext();
    }
}

void MainWindow::openSlot(Id<Slot> slot) {
    Selection selection = session_.selection();
    selection.slot = slot;
    selection.followUp.reset();
    selection.mount.reset();
    session_.select(selection);
    showStage(Stage::bench);
}

void MainWindow::setLook(Shade wanted, double textScale) {
    textScale_ = textScale;
    applyTheme(*qApp, wanted, textScale);
    QSettings settings;
    settings.setValue("dark", wanted == Shade::dark);
    settings.setValue("textScale", textScale);
    for (QWidget* drawn : findChildren<QWidget*>()) drawn->updateGeometry(); // sizes follow the text
    refreshNow();                                                            // colours set by hand follow too
    strip_->refresh();
    tape_->showEnd();
}

void MainWindow::remember() const { StartPage::remember(session_.path()); }

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList files;
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile()) files << url.toLocalFile();
    if (files.isEmpty()) return;
    event->acceptProposedAction();
    if (files.size() == 1 && files.front().endsWith(".ibuki")) {
        openAt(files.front());
        return;
    }
    startFrom(files);
}

void MainWindow::recordNext() {
    RunFor whom{session_.selection().slot, session_.selection().mount};
    if (whom.slot) whom.mount.reset();
    if (!whom.slot && !whom.mount && session_.study())
        whom.slot = nextStep(session_.document(), session_.study()->id).slot;
    if (session_.bench()) benchPage().record(whom);
}

void MainWindow::leaveRunning() {
    askChoice(this, {say("A run is under way"), say("What was recorded stays either way."), {}},
              {say("Stay with it"), say("End it and leave")}, [this](int which) {
                  leaving_ = which == 1;
                  if (leaving_) close();
              });
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (live_->isOn() && !leaving_) {
        event->ignore();
        leaveRunning();
        return;
    }
    QSettings settings;
    settings.setValue("geometry", saveGeometry());
    settings.setValue("stage", static_cast<int>(stage()));
    if (session_.isOpen()) remember();
    event->accept();
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Paint && !painted_) {
        painted_ = true;
        QTimer::singleShot(0, this, &MainWindow::firstPainted); // after this paint has been carried out
    }
    if (event->type() == QEvent::Resize && watched == centralWidget() && noticeBar_->isVisible())
        placeNotice();
    return QMainWindow::eventFilter(watched, event);
}

} // namespace ibuki
