// SPDX-License-Identifier: GPL-3.0-or-later
// A practice through the real widgets: begun from the window, planned, one run recorded, committed, unsealed.

#include "app/bench/bench_page.h"
#include "app/question/question_view.h"
#include "app/recording/live_panel.h"
#include "app/say.h"
#include "app/verdict/practice_sheet.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/domain/words.h"
#include "core/setup/plan_setup.h"
#include "support/story_window.h"
#include "support/test_class.h"

#include <QTemporaryDir>

using namespace ibuki;

class TestPracticeStory : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::unique_ptr<MainWindow> window_;

    Session& session() { return window_->session(); }
    const Document& document() { return session().document(); }

    /// Every label and button that anybody could read now.
    QString everythingShown() {
        QStringList all;
        for (QLabel* label : window_->findChildren<QLabel*>())
            if (label->isVisible()) all << label->text();
        for (QPushButton* button : window_->findChildren<QPushButton*>())
            if (button->isVisible()) all << button->text();
        return all.join("\n");
    }

private slots:
    void initTestCase() { window_ = story::emptyWindow("practice"); }
    void cleanupTestCase() { window_.reset(); }

    void itIsBegun() {
        QVERIFY(window_->practise(Scenario::threePastes, 21, folder_.filePath("practice.ibuki")));
        QVERIFY(session().study() && session().bench());
        QTRY_VERIFY(story::visible<QPushButton>(*window_, "Practice"));
        QCOMPARE(sayTerm(word(Scenario::threePastes)).isEmpty(), false);
    }
    void theLearnerPlans() {
        Edit edit(document(), titled("plan"));
        Plan plan = planFor(document(), session().study()->id);
        plan.mountsPerLevel = 1;
        plan.amount = Gram{0.14};
        plan.torque = NewtonMetre{0.6};
        putPlan(edit, plan);
        layPlan(edit, *session().question(), plan, session().now());
        QVERIFY(session().perform(edit.finish()));
        QCOMPARE(plannedSlots(document(), session().study()->id).size(), std::size_t{3});
    }
    void everyMountIsRecordedOnTheSealedBench() {
        for (int mount = 1; mount <= 3; ++mount) {
            Selection selection = session().selection();
            selection.mount.reset();
            selection.slot = plannedSlots(document(), session().study()->id).front()->id;
            session().select(selection);
            window_->showStage(Stage::bench);
            QVERIFY(story::trigger(*window_, "Record a run…"));
            auto* sheet = story::sheet<RunSheet>();
            QVERIFY(sheet);
            QCOMPARE(sheet->findChild<QLineEdit*>("Speed of a simulated bench")->text(), QString("300"));
            story::type(sheet->findChild<QLineEdit*>("Speed of a simulated bench"), "3600");
            QVERIFY(story::press(*sheet, "accept"));
            QVERIFY(QTest::qWaitFor([&] { return window_->liveRun().isOn(); }, 8'000));
            QVERIFY(QTest::qWaitFor([&] { return !window_->liveRun().isOn(); }, 30'000));
            const auto runs = runsOf(document(), *window_->liveRun().mount());
            QVERIFY(reductionOf(document(), runs.front()->id)->longest);
        }
        QCOMPARE(document().all<Mount>().size(), std::size_t{3});
    }
    void itsCameraSeesBothFaces() {
        session().selectMount(document().all<Mount>().begin()->first);
        window_->showStage(Stage::peel);
        QTest::qWait(60);
        QVERIFY(story::press(*window_, "Photograph the practice bench"));
        QTRY_COMPARE_WITH_TIMEOUT(document().all<JointPicture>().size(), std::size_t{2}, 20'000);
        for (const auto& [id, picture] : document().all<JointPicture>()) {
            QVERIFY(picture.covered.has_value());
            qInfo("%s covered %.3f (%.3f to %.3f) %s", picture.fileName.c_str(), *picture.covered,
                  *picture.coveredLow, *picture.coveredHigh, picture.flags.c_str());
            QVERIFY(*picture.covered > 0.2);
        }
        QTRY_VERIFY(session().jobs().running().isEmpty());
    }
    void nothingOfTheTruthIsShownBefore() {
        const Practice& practice = *practiceOf(document(), session().study()->id);
        for (Stage stage :
             {Stage::question, Stage::shelf, Stage::bench, Stage::peel, Stage::verdict, Stage::paper}) {
            window_->showStage(stage);
            QTest::qWait(60);
            for (const SealedLevel& level : sealedTruth(document(), practice))
                QVERIFY(!everythingShown().contains(QString::number(level.deltaK, 'f', 2)));
        }
        QVERIFY(story::press(*window_, "Practice"));
        auto* sheet = story::sheet<PracticeSheet>();
        QVERIFY(sheet);
        QVERIFY(!sheet->findChild<QLabel*>("What was true")->isVisible());
        QVERIFY(sheet->findChild<QLabel*>("What was true")->text().isEmpty());
    }
    void committedItIsUnsealed() {
        auto* sheet = story::sheet<PracticeSheet>();
        QVERIFY(sheet);
        const auto review = reviewOf(document(), *practiceOf(document(), session().study()->id));
        auto* best = sheet->findChild<QComboBox*>("The coolest is");
        best->setCurrentText(QString::fromStdString(review.levels.front().truth.name));
        story::type(sheet->findChild<QLineEdit*>("In your words"), "cooler by what I saw");
        QVERIFY(story::press(*sheet, "accept"));
        QTRY_VERIFY(sheet->findChild<QLabel*>("What was true")->isVisible());
        const QString reported = sheet->findChild<QLabel*>("What was true")->text();
        QVERIFY2(reported.contains("Right:"), qPrintable(reported));
        QVERIFY2(reported.contains("of 100 tries"), qPrintable(reported));
        QVERIFY(practiceOf(document(), session().study()->id)->committedAt.has_value());
        session().undoStack().undo(); // a commitment is none that is taken back
        QVERIFY(practiceOf(document(), session().study()->id)->committedAt.has_value());
        session().undoStack().redo();
        sheet->reject();
    }
};

IBUKI_TEST(TestPracticeStory)
#include "tst_practice_story.moc"
