// SPDX-License-Identifier: GPL-3.0-or-later
// The run that is being recorded, without a window.

#include "app/session/live_run.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/setup/run_setup.h"
#include "live/source.h"
#include "support/laid.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QSignalSpy>
#include <QTemporaryDir>
#include <QtTest>

using namespace ibuki;

class TestLiveRun : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

    /// The story's study with its nine mounts on the tape.
    QString planned() {
        const story::Laid laid;
        const QString path = folder_.filePath(QString("%1.ibuki").arg(++count_));
        Project::create(path.toStdString()).apply(story::everythingOf(laid.asked.document));
        return path;
    }
    /// Of the next planned mount, on a simulated bench.
    static RunPlan next(const Session& session, double speed) {
        const Study& study = session.document().all<Study>().begin()->second;
        RunPlan plan;
        plan.study = study.id;
        plan.wish.bench = study.bench;
        for (const Slot* slot : slotsOf(session.document(), study.id))
            if (!slot->mount) {
                plan.wish.slot = slot->id;
                break;
            }
        plan.wish.sources = {"sim"};
        plan.conduct.steps = runSteps(session.document(), study.id);
        for (StepOccurrence& step : plan.conduct.steps)
            if (!step.load.empty()) step.powerW = 150;
        plan.conduct.rules = monitorRules(session.document(), study.id);
        SourceOptions options;
        options.speed = speed;
        plan.sources.push_back(openSimulatedBench("sim", SimulatedBench{}, options));
        return plan;
    }
    static bool waits(const LiveRun& run, int ms = 60'000) {
        return QTest::qWaitFor([&] { return !run.isOn(); }, ms);
    }

private slots:
    void aRunEndsWithItsFigures() {
        Session session;
        QVERIFY(session.openProject(planned()));
        LiveRun run(session);
        QSignalSpy ended(&run, &LiveRun::ended);
        QVERIFY(run.begin(next(session, 0)));
        QVERIFY(session.isHeld());
        QVERIFY(!run.begin(next(session, 0))); // one at a time
        QVERIFY(waits(run));
        QCOMPARE(ended.count(), 1);
        QVERIFY(!session.isHeld());
        const auto runs = runsOf(session.document(), *run.mount());
        QCOMPARE(runs.size(), std::size_t{1});
        QVERIFY(reductionOf(session.document(), runs.front()->id)->longest);
        QCOMPARE(session.document().find(run.recording())->samples, run.extent().samples);
        QVERIFY(run.rise().stretches().size() > 100);
        QCOMPARE(session.undoStack().count(), 1); // one action from its begin to its figures
    }
    void asOftenAsOneLikes() { // nothing of a run stays with the next
        Session session;
        QVERIFY(session.openProject(planned()));
        LiveRun run(session);
        for (int i = 0; i < 3; ++i) {
            QVERIFY(run.begin(next(session, 0)));
            QVERIFY(waits(run));
            QCOMPARE(run.channels().size(), std::size_t{13});
            QVERIFY(run.warnings().empty());
        }
        QCOMPARE(session.document().all<Mount>().size(), std::size_t{3});
        for (int i = 0; i < 3; ++i) session.undoStack().undo();
        QCOMPARE(session.document().all<Mount>().size(), std::size_t{0});
        QCOMPARE(session.document().all<Recording>().size(), std::size_t{3}); // withdrawn
    }
    void whatGoesAwayEndsInOrder() { // and the next opening has its figures
        const QString path = planned();
        std::int64_t samples = 0;
        {
            Session session;
            QVERIFY(session.openProject(path));
            LiveRun run(session);
            QVERIFY(run.begin(next(session, 2'000)));
            QVERIFY(QTest::qWaitFor([&] { return run.extent().durationS > 500; }, 30'000)); // into the load
            samples = run.extent().samples;
        }
        Session session;
        QVERIFY(session.openProject(path));
        const Recording kept = session.document().all<Recording>().begin()->second;
        QCOMPARE(kept.state, RecordingState::closed);
        QVERIFY(kept.samples >= samples);
        const Id<Run> run = session.document().where(&Run::recording, kept.id).front()->id;
        QVERIFY(QTest::qWaitFor([&] { return reductionOf(session.document(), run) != nullptr; }, 20'000));
    }
    void aKilledRunIsUsableLikeAnyOther() { // interrupted: its rows, its mount, its figures
        const QString path = planned();
        Id<Recording> id;
        {
            Project project = Project::open(path.toStdString());
            const Study& study = project.document().all<Study>().begin()->second;
            RecordingWish wish;
            wish.bench = study.bench;
            wish.slot = slotsOf(project.document(), study.id).front()->id;
            wish.at = story::now;
            const RecordingBegun begun = beginRecording(project.document(), wish);
            project.apply(begun.set);
            id = begun.recording;
            RecordingJournal journal(path.toStdString(), id);
            BenchSimulation bench({}, 1, 3);
            std::vector<ChannelInfo> channels;
            for (const Channel& channel : bench.channels())
                channels.push_back({channel.column, channel.role, channel.index, channel.fileUnit});
            journal.addChannels(channels);
            std::vector<TimedRow> rows;
            for (int i = 0; i < 1'500; ++i)
                rows.push_back(
                    {static_cast<double>(i), bench.next(i > 300 ? std::optional(150.0) : std::nullopt)});
            journal.append(rows);
        } // nobody closed it
        Session session;
        QVERIFY(session.openProject(path));
        QCOMPARE(session.document().find(id)->state, RecordingState::interrupted);
        const Id<Run> run = session.document().where(&Run::recording, id).front()->id;
        QVERIFY(QTest::qWaitFor([&] { return reductionOf(session.document(), run) != nullptr; }, 20'000));
        QVERIFY(reductionOf(session.document(), run)->longest);
    }
    void marksStayWithTheRecording() {
        Session session;
        QVERIFY(session.openProject(planned()));
        LiveRun run(session);
        QVERIFY(run.begin(next(session, 500)));
        QVERIFY(QTest::qWaitFor([&] { return run.extent().samples > 50; }, 20'000));
        run.remark("the door was open");
        run.moment();
        run.type(Role::ambient, 21.5);
        QVERIFY(QTest::qWaitFor([&] { return run.channels().size() == 14; }, 20'000));
        run.abort();
        QVERIFY(waits(run));
        QStringList codes;
        for (const RecordingMark* mark : session.document().where(&RecordingMark::recording, run.recording()))
            codes << QString::fromStdString(mark->message.code);
        QVERIFY(codes.contains("said") && codes.contains("run-moment") && codes.contains("run-step"));
    }
};

IBUKI_TEST(TestLiveRun)
#include "tst_live_run.moc"
