// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one window: top line, strip, stages, the view, tape. It owns the session and the actions; views do the
// rest.

#include "app/drawn/theme.h"
#include "app/session/session.h"
#include "core/domain/plan.h"
#include "core/setup/next_step.h"

#include <QMainWindow>
#include <QTimer>
#include <span>

class QLabel;
class QPushButton;
class QStackedWidget;

namespace ibuki {

class BenchPage;
class BenchView;
class LiveRun;
class AgeingView;
class HeatView;
class PeelView;
class PaperView;
class QuestionView;
class ShelfView;
class StageBar;
class Strip;
class Tape;
class TopLine;
class VerdictView;
class WhatIsThis;

enum class Stage { question, shelf, bench, peel, verdict, ageing, heatPath, paper };

class MainWindow : public QMainWindow {
    Q_OBJECT

public:
    /// samplePath: the demo project to copy when the demo is asked for; may be missing.
    explicit MainWindow(const QString& samplePath, QWidget* parent = nullptr);
    ~MainWindow() override;

    Session& session() { return session_; }
    /// Views are made when they are first asked for: the first picture waits for one only.
    QuestionView& questionView();
    ShelfView& shelfView();
    BenchPage& benchPage();
    BenchView& benchView();
    LiveRun& liveRun() { return *live_; }
    VerdictView& verdictView();
    AgeingView& ageingView();
    HeatView& heatView();
    PeelView& peelView();
    PaperView& paperView();
    void showStage(Stage stage);
    Stage stage() const;

    /// After a mistake of our own: closes the project in order, and says where the report of it is.
    void giveUp(const QString& what);
    bool openDemo(const QString& copyTo = {}); ///< empty: the user's data folder
    /// A new project at the path whose bench is simulated and whose truth is sealed.
    bool practise(Scenario scenario, int seed, const QString& path);
    void openLast(); ///< the last project, else the start page
    void setLook(Shade shade, double textScale);

signals:
    void firstPainted();

protected:
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    /// What the window knows of a stage; they stand in their order.
    struct StageRow {
        Stage stage;
        const char* name;
        const char* what; ///< tool tip
        const char* go;   ///< the command that leads there
        void (*refresh)(MainWindow&);
    };
    static std::span<const StageRow> stageTable();

    void makeActions();
    void makeProjectActions();
    void makeRunActions();
    void makeLookActions();
    QAction* addCommand(const QString& text, const QKeySequence& key, std::function<void()> what);
    void makeViews();
    QLayout* makeWork();
    void makeNoticeBar();
    void connectParts();
    void put(Stage stage, QWidget* view);
    void newProject();
    bool createAt(const QString& path);
    void lookAtLogs(); ///< a project made for logs that are there already
    void startFrom(const QStringList& files);
    void openProject();
    void openAt(const QString& path);
    void saveCopy();
    void newBench();
    void benchSheet();
    void newStudy();
    void duplicateThisStudy();
    void closeThisStudy();
    void openLayer(Id<Layer> layer);
    void openSite(Id<Site> site);
    void openMount(Id<Mount> mount);
    void openSlot(Id<Slot> slot);
    void openPeel(Id<Mount> mount);
    void openFollowUp(Id<FollowUp> followUp);
    void takeStep(StudyNeeds needs);
    void askPractice();
    void openPractice(); ///< commit to a sentence, or what followed
    void recordNext();   ///< of what is chosen, else of what is planned next
    void leaveRunning();
    void showNotice(const QString& notice);
    void placeNotice();
    void refreshSoon();
    void refreshNow();
    void remember() const;

    QString samplePath_;
    Session session_;
    std::unique_ptr<LiveRun> live_; ///< ends before the session does
    QTimer refresh_;
    QList<QAction*> commands_;
    QAction* new_ = nullptr;
    QAction* open_ = nullptr;
    QAction* demo_ = nullptr;
    QAction* logs_ = nullptr;
    QAction* practise_ = nullptr;
    QList<QAction*> projectActions_;
    QList<QAction*> benchActions_;
    QList<QAction*> studyActions_;
    WhatIsThis* what_ = nullptr;
    QWidget* work_ = nullptr;
    QStackedWidget* pages_ = nullptr; ///< start page, work
    QStackedWidget* views_ = nullptr;
    TopLine* top_ = nullptr;
    Strip* strip_ = nullptr;
    Tape* tape_ = nullptr;
    StageBar* stages_ = nullptr;
    QPushButton* practiceBar_ = nullptr;
    QWidget* noticeBar_ = nullptr;
    QLabel* notice_ = nullptr;
    QuestionView* question_ = nullptr;
    ShelfView* shelf_ = nullptr;
    BenchPage* bench_ = nullptr;
    VerdictView* verdict_ = nullptr;
    PeelView* peel_ = nullptr;
    AgeingView* ageing_ = nullptr;
    HeatView* heat_ = nullptr;
    PaperView* paper_ = nullptr;
    double textScale_ = 1.0;
    bool painted_ = false;
    bool leaving_ = false; ///< though a run is under way
};

} // namespace ibuki
