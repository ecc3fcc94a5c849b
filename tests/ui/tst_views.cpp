// SPDX-License-Identifier: GPL-3.0-or-later
// Views and sheets on the demo project, through the real widgets.

#include "app/bench/bench_view.h"
#include "app/forms/bench_dialogs.h"
#include "app/forms/entity_form.h"
#include "app/frame/main_window.h"
#include "app/frame/strip.h"
#include "app/frame/tape.h"
#include "app/import/import_dialog.h"
#include "app/import/import_table.h"
#include "app/question/part_sheet.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/response.h"
#include "core/setup/bench_template.h"
#include "store/log/log_batch.h"
#include "support/places.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QComboBox>
#include <QListWidget>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QtTest>

using namespace ibuki;

class TestViews : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }
    QPushButton* buttonNamed(const QString& name) {
        for (QPushButton* found : window_->findChildren<QPushButton*>(name))
            if (found->isVisible()) return found;
        return nullptr;
    }
    template <class W> W* named(const QString& accessibleName) {
        for (W* found : window_->findChildren<W*>())
            if (found->isVisible() && found->accessibleName() == accessibleName) return found;
        return nullptr;
    }
    QString notice() { return story::notice(*window_); }
    const Mount* mountNamed(const std::string& name) {
        for (const Mount* mount : mountsOf(document(), session().bench()->id))
            if (mount->name == name) return mount;
        return nullptr;
    }

private slots:
    void initTestCase() {
        window_ = story::demoWindow("views", folder_.filePath("demo.ibuki"));
        QVERIFY(window_);
    }
    void cleanupTestCase() { window_.reset(); }

    void benchShowsTheSelectedMount() {
        session().selectMount(mountNamed("Quickfin 2")->id);
        window_->showStage(Stage::bench);
        auto* big = named<QLabel>("Steady difference");
        QVERIFY(big);
        const Run* run = runsOf(document(), mountNamed("Quickfin 2")->id).front();
        const double delta =
            *responseOf(*loadOf(*reductionOf(document(), run->id), *run, session().question()->metric),
                        *session().question());
        QCOMPARE(big->text(), QString::number(delta, 'f', 1));
        QVERIFY(named<QTableWidget>("Reduced figures")->rowCount() >= 6);
    }
    void aLimitBoundMountSaysAtLeast() {
        session().selectMount(mountNamed("Dunlin C 2")->id);
        window_->showStage(Stage::bench);
        QVERIFY(named<QLabel>("Steady difference")->text().startsWith("≥"));
    }
    void aMountIsRejectedWithAReasonOnly() {
        session().selectMount(mountNamed("Heron HV 1")->id);
        window_->showStage(Stage::bench);
        QTest::mouseClick(buttonNamed("Reject mount…"), Qt::LeftButton);
        QVERIFY(story::answer("").contains("reason"));
        QVERIFY(!mountNamed("Heron HV 1")->rejected);
        QCOMPARE(story::answer("a hair under the lid"), QString());
        QVERIFY(mountNamed("Heron HV 1")->rejected);
        QCOMPARE(mountNamed("Heron HV 1")->reason, std::string("a hair under the lid"));
        session().undoStack().undo();
        QVERIFY(!mountNamed("Heron HV 1")->rejected);
    }
    void aRoomReadByHandReducesAgain() {
        const Id<Mount> mount = mountNamed("Tern 11 1")->id; // a pointer would not outlive the next change
        session().selectMount(mount);
        window_->showStage(Stage::bench);
        QTest::mouseClick(buttonNamed("Enter room…"), Qt::LeftButton);
        QCOMPARE(story::answer("20"), QString());
        QTRY_VERIFY(!session().work().isRunning());
        const Run* run = runsOf(document(), mount).front();
        QCOMPARE(run->enteredAmbient->value, 20.0);
        QCOMPARE(reductionOf(document(), run->id)->main()->ambient.source, AmbientSource::entered);
        QTest::mouseClick(buttonNamed("Enter room…"), Qt::LeftButton);
        QVERIFY(story::answer("warm").contains("no temperature"));
        QVERIFY(story::leaveQuestion());
        session().undoStack().undo();
        QCOMPARE(reductionOf(document(), runsOf(document(), mount).front()->id)->main()->ambient.source,
                 AmbientSource::column);
    }
    void aTimeIsStated() {
        session().selectMount(mountNamed("Tern 11 1")->id);
        window_->showStage(Stage::bench);
        QTest::mouseClick(buttonNamed("Set time…"), Qt::LeftButton);
        QCOMPARE(story::answer("2031-03-01 10:00"), QString());
        QCOMPARE(mountsOf(document(), session().bench()->id).front()->name, std::string("Tern 11 1"));
        session().undoStack().undo();
        QCOMPARE(mountsOf(document(), session().bench()->id).front()->name, std::string("Check 1"));
    }
    void aPlannedTileSaysWhatToDo() {
        auto* tape = window_->findChild<Tape*>();
        const auto next = std::find_if(tape->tiles().begin(), tape->tiles().end(),
                                       [](const TapeTile& t) { return t.state == TileState::next; });
        QVERIFY(next != tape->tiles().end());
        emit tape->slotOpened(*next->slot);
        QCOMPARE(window_->stage(), Stage::bench);
        bool reported = false;
        for (QLabel* label : window_->findChildren<QLabel*>())
            reported = reported || label->text().startsWith("Planned: ");
        QVERIFY(reported);
    }
    void theStripFollowsTheSelection() {
        session().selectMount(mountNamed("Slate 25 1")->id);
        auto* strip = window_->findChild<Strip*>();
        QVERIFY(strip->model().chipC && strip->model().ambientC);
        const auto study = std::find_if(strip->model().blocks.begin(), strip->model().blocks.end(),
                                        [](const StripBlock& b) { return b.underStudy; });
        QVERIFY(study->name.contains("Slate 25"));
    }
    void theStripSwitchesBetweenPaths() {
        Edit edit(document(), "Describe");
        const Id<Bench> card = addBench(edit, BenchTemplate::graphicsCard, "render-1");
        QVERIFY(session().perform(edit.finish()));
        const Selection before = session().selection();
        Selection selection;
        selection.bench = card;
        session().select(selection);
        auto* strip = window_->findChild<Strip*>();
        QTRY_COMPARE(strip->model().others.size(), std::size_t{2});
        QCOMPARE(strip->model().source, QString("chip"));
        strip->setFocus();
        QTest::keyClick(strip, Qt::Key_Down); // the first other path
        QTest::keyClick(strip, Qt::Key_Return);
        QTRY_COMPARE(strip->model().source, QString("memory"));
        QTest::keyClick(strip, Qt::Key_Home);
        SiteSheet* sheet = nullptr;
        QTest::keyClick(strip, Qt::Key_Return);
        QTRY_VERIFY((sheet = window_->findChild<SiteSheet*>()));
        sheet->close();
        session().undoStack().undo();
        session().select(before);
    }
    void levelsAreMovedAndKept() {
        window_->showStage(Stage::question);
        auto* levels = named<QListWidget>("Levels compared");
        levels->setCurrentRow(0);
        const QString first = levels->item(0)->text();
        QTest::mouseClick(buttonNamed("Down"), Qt::LeftButton);
        QTRY_COMPARE(levels->item(1)->text(), first);
        session().undoStack().undo();
        QTRY_COMPARE(levels->item(0)->text(), first);
        levels->setCurrentRow(0);
        QTest::mouseClick(buttonNamed("Leave out"), Qt::LeftButton);
        QVERIFY(notice().contains("stays")); // it has mounts
    }
    void judgingByAnotherMetricChangesNothingStored() {
        const auto stored = document().all<RunReduction>();
        window_->showStage(Stage::question);
        PartSheet sheet(session(), AskedPart::metric, window_.get());
        sheet.show();
        auto* metric = sheet.findChild<QComboBox*>("Judged by");
        const int wanted = metric->findData(static_cast<int>(Metric::coreAverage));
        metric->setCurrentIndex(wanted);
        emit metric->activated(wanted);
        QTRY_COMPARE(session().question()->metric, Metric::coreAverage);
        QCOMPARE(document().all<RunReduction>(), stored);
        session().undoStack().undo();
        QCOMPARE(session().question()->metric, Metric::hottest);
    }
    void theBenchSheetOpensASite() {
        BenchSheet sheet(session());
        sheet.show();
        auto* sites = sheet.findChild<QListWidget*>("Sites");
        QCOMPARE(sites->count(), 2);
        emit sites->itemActivated(sites->item(1));
        SiteSheet* site = nullptr;
        QTRY_VERIFY((site = sheet.findChild<SiteSheet*>()));
        auto* gap = site->findChild<QLineEdit*>("Gap, mm");
        gap->setText("0,05");
        emit gap->editingFinished();
        QCOMPARE(document().find(session().question()->site)->gap->value, 0.05);
        gap->setText("-1");
        emit gap->editingFinished();
        QCOMPARE(document().find(session().question()->site)->gap->value, 0.05);
        session().undoStack().undo();
        QVERIFY(!document().find(session().question()->site)->gap);
    }
    void sensorsAreEditedAndRemoved() {
        BenchSheet sheet(session());
        sheet.show();
        auto* sensors = sheet.findChild<QListWidget*>("Sensors");
        const int before = sensors->count();
        QVERIFY(before >= 3);
        QTest::mouseClick(sheet.findChild<QPushButton*>("Add sensor"), Qt::LeftButton);
        QCOMPARE(sensors->count(), before + 1);
        SensorSheet* added = nullptr;
        QTRY_VERIFY((added = sheet.findChild<SensorSheet*>()));
        auto* accuracy = added->findChild<QLineEdit*>("Accuracy, ± K");
        accuracy->setText("0.5");
        emit accuracy->editingFinished();
        QVERIFY(sensors->item(before)->text().contains("± 0.5 K"));
        QTest::mouseClick(added->findChild<QPushButton*>("Remove"), Qt::LeftButton);
        QCOMPARE(sensors->count(), before);
        for (int i = 0; i < 3; ++i) session().undoStack().undo();
        QCOMPARE(sensors->count(), before);
    }
    void aBatchNamesWhatItRefused() {
        const std::string logs = std::string(places::testData) + "/logs/";
        double last = 0;
        const LogBatch batch = readLogBatch({logs + "plain.csv", logs + "prose.txt", logs + "no-room.csv"},
                                            {}, {}, [&](double share) { last = share; });
        QCOMPARE(batch.logs.size(), std::size_t{2});
        QCOMPARE(batch.refused.size(), std::size_t{1});
        QCOMPARE(last, 1.0);
        ImportDialog dialog(session(), batch, {});
        dialog.show();
        QCOMPARE(dialog.rows().size(), std::size_t{2});
        const auto before = document().all<Mount>().size();
        for (QComboBox* box : dialog.findChildren<QComboBox*>())
            if (box->accessibleName().startsWith("Level of")) box->setCurrentIndex(0); // not known
        QTest::mouseClick(dialog.findChild<QPushButton*>("accept"), Qt::LeftButton);
        QCOMPARE(document().all<Mount>().size(), before);
        QVERIFY(dialog.isVisible());
        for (QComboBox* box : dialog.findChildren<QComboBox*>())
            if (box->accessibleName().startsWith("Level of")) box->setCurrentIndex(1);
        dialog.findChild<QTableWidget*>("Logs to bring in")
            ->item(0, ImportTable::time)
            ->setText("some evening");
        QTest::mouseClick(dialog.findChild<QPushButton*>("accept"), Qt::LeftButton);
        QVERIFY(dialog.isVisible());
        dialog.findChild<QTableWidget*>("Logs to bring in")
            ->item(0, ImportTable::time)
            ->setText("2031-03-10 18:00");
        QTest::mouseClick(dialog.findChild<QPushButton*>("accept"), Qt::LeftButton);
        QCOMPARE(document().all<Mount>().size(), before + 2);
        session().undoStack().undo();
        QCOMPARE(document().all<Mount>().size(), before);
    }
};

IBUKI_TEST(TestViews)
#include "tst_views.moc"
