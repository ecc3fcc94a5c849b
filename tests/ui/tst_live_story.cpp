// SPDX-License-Identifier: GPL-3.0-or-later
// A run recorded from the window, through the real widgets: a simulated bench as source, the hands, the
// protocol, remarks and readings by hand, what is decided afterwards; and what no project file can start.

#include "app/bench/bench_page.h"
#include "app/recording/after_run_bar.h"
#include "app/recording/check_up_sheet.h"
#include "app/recording/gate_bar.h"
#include "app/recording/live_panel.h"
#include "app/run/readings_sheet.h"
#include "app/say.h"
#include "core/clock/mount_history.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/setup/plan_setup.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QCheckBox>
#include <QListWidget>
#include <QTemporaryDir>

using namespace ibuki;

class TestLiveStory : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    LiveRun& live() { return window_->liveRun(); }
    template <class W> W* find(const char* name) { return story::visible<W>(*window_, name); }
    QString shown(const char* name) {
        auto* label = find<QLabel>(name);
        return label ? label->text() : QString();
    }
    LivePanel& panel() { return window_->benchPage().live(); }

    QString file(const QString& name, const std::string& text) {
        const QString path = folder_.filePath(name);
        std::ofstream(path.toStdString()) << text;
        return path;
    }
    /// Chooses the study's next planned mount and opens the sheet.
    RunSheet* openSheet() {
        Selection selection = session().selection();
        selection.mount.reset();
        selection.slot = plannedSlots(document(), session().study()->id).front()->id;
        session().select(selection);
        window_->showStage(Stage::bench);
        return story::trigger(*window_, "Record a run…") ? story::sheet<RunSheet>() : nullptr;
    }
    bool begin(RunSheet& sheet, const QString& speed) {
        story::type(sheet.findChild<QLineEdit*>("Speed of a simulated bench"), speed);
        if (!story::press(sheet, "accept")) return false;
        const bool on = QTest::qWaitFor([&] { return live().isOn(); }, 8'000);
        if (!on) qWarning() << story::notice(*window_);
        return on;
    }
    bool ended() {
        return QTest::qWaitFor([&] { return !live().isOn(); }, 60'000);
    }

private slots:
    void initTestCase() {
        window_ = story::demoWindow("live", folder_.filePath("live.ibuki"));
        QVERIFY(window_);
        // The demo's study with loads of a power that a simulated bench can feel.
        Edit edit(document(), titled("loads"));
        for (const Load* load : loadsOf(document(), session().study()->id)) {
            Load changed = *load;
            changed.target = Watt{150};
            edit.put(changed);
        }
        QVERIFY(session().perform(edit.finish()));
    }
    void cleanupTestCase() { window_.reset(); }

    void aSourceIsChosenOnceForTheBench() {
        RunSheet* sheet = openSheet();
        QVERIFY(sheet);
        QVERIFY(!story::visible<QPushButton>(*sheet, "accept")
                || !sheet->findChild<QPushButton*>("accept")->isEnabled()); // no source yet
        const QString bench = file("bench.json", R"({"cores": 4})");
        answerFiles([&](const FileWish&) { return QStringList{bench}; });
        QVERIFY(story::press(*sheet, "A simulated bench…"));
        auto* sources = sheet->findChild<QListWidget*>();
        QTRY_COMPARE(sources->count(), 1);
        answerFiles({});
        QCOMPARE(document().all<BenchSource>().size(), std::size_t{1});
        sheet->reject();
    }
    void handsAreTimedByOneKey() {
        RunSheet* sheet = openSheet();
        QVERIFY(sheet);
        QCOMPARE(sheet->findChild<QListWidget*>()->count(), 1); // it stayed
        for (QCheckBox* box : sheet->findChildren<QCheckBox*>())
            if (box->text().startsWith("Hands first")) box->setChecked(true);
        QVERIFY(begin(*sheet, "300"));
        QCOMPARE(live().stage(), RunStage::manualWork);
        QTRY_VERIFY(panel().isVisible());
        QTRY_VERIFY(shown("Live step").startsWith("remove"));
        panel().setFocus();
        for (int hand = 0; hand < 3; ++hand) QTest::keyClick(&panel(), Qt::Key_Space);
        QTRY_COMPARE(live().stage(), RunStage::recording);
        QVERIFY(live().mount().has_value()); // made when the hands were done
        QCOMPARE(session().selection().mount, live().mount());
    }
    void theProtocolIsWalked() {
        QTRY_VERIFY_WITH_TIMEOUT(shown("Live step").contains("soak"), 20'000);
        QVERIFY(shown("Live difference").toDouble() > 0);
        QTest::keyClick(&panel(), Qt::Key_M);
        live().remark("the door was open");
        live().type(Role::wallPower, 212);
        QVERIFY(ended());
        QVERIFY2(!live().mustStop(), "");
    }
    void figuresAreThereAtOnce() {
        const Mount* mount = session().mount();
        QVERIFY(mount);
        const auto runs = runsOf(document(), mount->id);
        QCOMPARE(runs.size(), std::size_t{1});
        const Reduction* reduction = reductionOf(document(), runs.front()->id);
        QVERIFY(reduction && reduction->longest);
        QVERIFY(historyOf(document(), mount->id).at(*loadBegan(document(), *runs.front())).hours.has_value());
        QVERIFY(find<QLabel>("Steady difference")->text().toDouble() > 20);
        std::vector<std::string> marks;
        for (const RecordingMark* mark : document().where(&RecordingMark::recording, runs.front()->recording))
            marks.push_back(words::text(mark->message));
        QVERIFY(std::find(marks.begin(), marks.end(), "the door was open") != marks.end());
        QVERIFY(std::find(marks.begin(), marks.end(), "soak: begun") != marks.end());
        const Trace trace = story::traceOf(session(), runs.front()->recording);
        const Channel* wall = firstChannel(trace, Role::wallPower);
        QVERIFY(wall);
        QCOMPARE(std::count_if(wall->values.begin(), wall->values.end(), [](double v) { return v == 212; }),
                 std::ptrdiff_t{1}); // one row, at its time
    }
    void readingsAreTypedAndTakenBack() {
        QVERIFY(story::press(*window_, "Readings…"));
        auto* sheet = story::sheet<ReadingsSheet>();
        QVERIFY(sheet);
        const auto before = document().all<EnteredReading>().size(); // the wall meter's is there by itself
        story::type(sheet->findChild<QLineEdit*>("Value"), "1840");
        QTest::keyClick(sheet->findChild<QLineEdit*>("Value"), Qt::Key_Return);
        QTRY_COMPARE(document().all<EnteredReading>().size(), before + 1);
        const EnteredReading& score = document().all<EnteredReading>().back().second;
        QCOMPARE(score.kind, SideResponse::score);
        QCOMPARE(score.better, Better::higher);
        QCOMPARE(score.value, 1840.0);
        story::type(sheet->findChild<QLineEdit*>("Value"), "many");
        QTest::keyClick(sheet->findChild<QLineEdit*>("Value"), Qt::Key_Return);
        QCOMPARE(document().all<EnteredReading>().size(), before + 1); // told in the sheet
        sheet->reject();
        session().undoStack().undo();
        QCOMPARE(document().all<EnteredReading>().size(), before);
    }
    void keepingItLightsTheNextTile() {
        const auto planned = plannedSlots(document(), session().study()->id);
        QVERIFY(story::press(*window_, "Keep"));
        QTRY_COMPARE(session().selection().slot, std::optional(planned.front()->id));
    }
    void oneUndoTakesTheRunBack() {
        const auto mounts = document().all<Mount>().size();
        const auto recordings = document().all<Recording>().size();
        session().undoStack().undo();
        QCOMPARE(document().all<Mount>().size(), mounts - 1);
        QCOMPARE(document().all<Recording>().size(), recordings); // withdrawn, not gone
        session().undoStack().redo();
        QCOMPARE(document().all<Mount>().size(), mounts);
    }
    void pausedItHasNoLoadAndAbortKeepsWhatIsThere() {
        RunSheet* sheet = openSheet();
        QVERIFY(sheet);
        QVERIFY(begin(*sheet, "400"));
        QTRY_VERIFY_WITH_TIMEOUT(live().status().step && live().status().step->kind == StepKind::soak,
                                 20'000);
        panel().setFocus();
        QTest::keyClick(&panel(), Qt::Key_P);
        QTRY_VERIFY(live().status().paused);
        QTRY_VERIFY_WITH_TIMEOUT(live().sample().powerW.value_or(999) < 40, 8'000); // idle again
        QTest::keyClick(&panel(), Qt::Key_P);
        QTRY_VERIFY(!live().status().paused);
        QTest::keyClick(&panel(), Qt::Key_Escape); // not held: nothing
        QVERIFY(live().isOn());
        QTest::keyPress(&panel(), Qt::Key_Escape);
        QTRY_VERIFY_WITH_TIMEOUT(!live().isOn(), 20'000);
        QTest::keyRelease(&panel(), Qt::Key_Escape);
        const auto runs = runsOf(document(), *live().mount());
        QCOMPARE(document().find(runs.front()->recording)->state, RecordingState::closed);
        QVERIFY(document().find(runs.front()->recording)->samples > 100);
    }
    void anotherProjectWaitsForTheRun() {
        RunSheet* sheet = openSheet();
        QVERIFY(sheet);
        QVERIFY(begin(*sheet, "60"));
        QTRY_COMPARE(live().stage(), RunStage::recording);
        QVERIFY(!session().openProject(folder_.filePath("other.ibuki")));
        QVERIFY(session().isOpen());
        window_->close();
        QVERIFY(window_->isVisible()); // asked first
        if (QWidget* asked = QApplication::activeModalWidget()) asked->close();
        for (QDialog* dialog : window_->findChildren<QDialog*>()) dialog->reject();
        live().abort();
        QVERIFY(ended());
    }
    // The command stands in the project, agreed to by nobody here: it starts nothing.
    void aProjectCannotStartACommand() {
        const QString witness = folder_.filePath("started");
        Edit edit(document(), titled("command"));
        for (const Load* load : loadsOf(document(), session().study()->id)) {
            Load changed = *load;
            changed.command = {"/bin/sh", "-c", "touch '" + witness.toStdString() + "'; sleep 60"};
            edit.put(changed);
        }
        QVERIFY(session().perform(edit.finish()));
        const auto toSoak = [&] {
            // Some seconds long at this speed: nobody misses it, however busy the machine is.
            QTRY_VERIFY_WITH_TIMEOUT(live().status().step && live().status().step->kind == StepKind::soak,
                                     20'000);
            QTest::qWait(300);
        };
        RunSheet* sheet = openSheet();
        QVERIFY(sheet);
        auto* agreed = sheet->findChild<QCheckBox*>("Load agreed");
        QVERIFY(agreed && !agreed->isChecked());
        QVERIFY(sheet->findChild<QLabel*>() != nullptr);
        QVERIFY(begin(*sheet, "300"));
        toSoak();
        live().abort();
        QVERIFY(ended());
        QVERIFY(!QFile::exists(witness));

        RunPlan sneaked; // a plan that says it has a command, without anybody's word
        sneaked.study = session().study()->id;
        sneaked.wish.bench = session().bench()->id;
        sneaked.conduct.steps = {{StepKind::soak, "x", 100, 1}};
        sneaked.conduct.commands["x"] = {"/bin/sh", "-c", "touch '" + witness.toStdString() + "'"};
        sneaked.sources.push_back(openSimulatedBench("sim", SimulatedBench{}, {1, 600, 1, false}));
        QVERIFY(live().begin(std::move(sneaked)));
        QVERIFY(ended());
        QVERIFY(!QFile::exists(witness));

        sheet = openSheet(); // and with the user's word it does
        QVERIFY(sheet);
        sheet->findChild<QCheckBox*>("Load agreed")->setChecked(true);
        QVERIFY(begin(*sheet, "300"));
        toSoak();
        QTRY_VERIFY_WITH_TIMEOUT(QFile::exists(witness), 8'000);
        live().abort();
        QVERIFY(ended());
    }
    void aCheckUpGoesOnTheBenchsSheet() {
        Selection selection = session().selection();
        selection.mount.reset();
        selection.slot.reset();
        session().select(selection);
        QVERIFY(story::trigger(*window_, "Check-up of the bench…"));
        auto* sheet = story::sheet<RunSheet>();
        QVERIFY(sheet);
        QVERIFY(begin(*sheet, "1200"));
        QVERIFY(ended());
        auto* found = story::sheet<CheckUpSheet>();
        QVERIFY(found);
        QVERIFY(found->findChild<QLabel*>("Check-up told")->text().contains("time constant"));
        QVERIFY(story::press(*found, "accept"));
        QTRY_VERIFY(session().configuration()->slowestMinutes.has_value());
        QVERIFY(*session().configuration()->slowestMinutes > 0.5
                && *session().configuration()->slowestMinutes < 2);
    }
    void theBarLeavesRoomForEveryName() {
        std::vector<StepOccurrence> steps(9);
        for (std::size_t i = 0; i < steps.size(); ++i) steps[i].minutes = i == 4 ? 600 : 1;
        const auto at = gateBarLayout(steps, {0, 0, 900, 30}, 4, 40);
        QCOMPARE(at.size(), steps.size());
        for (std::size_t i = 0; i < at.size(); ++i) {
            QVERIFY(at[i].width() >= 40 - 1e-9);
            if (i > 0) QVERIFY(std::abs(at[i].left() - at[i - 1].right() - 4) < 1e-9);
        }
        QVERIFY(std::abs(at.back().right() - 900) < 1e-9);
        QVERIFY(at[4].width() > at[0].width());
    }
};

IBUKI_TEST(TestLiveStory)
#include "tst_live_story.moc"
