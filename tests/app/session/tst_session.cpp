// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/session.h"
#include "core/domain/run_reduction.h"
#include "core/setup/plan_setup.h"
#include "support/near.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QSignalSpy>
#include <QTemporaryDir>
#include <SQLiteCpp/SQLiteCpp.h>

using namespace ibuki;

class TestSession : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;

#ifdef IBUKI_SANITIZED // under a sanitizer reducing takes its time
    static constexpr int patienceMs = 120'000;
    static constexpr std::size_t enoughLogs = 3;
#else
    static constexpr int patienceMs = 5'000;
    static constexpr std::size_t enoughLogs = 9;
#endif

    static const std::vector<ImportedLog>& someLogs() {
        static const std::vector<ImportedLog> logs = [] {
            auto all = story::nineLogs();
            all.resize(enoughLogs);
            return all;
        }();
        return logs;
    }

    /// A session on a new project with the story's logs.
    std::unique_ptr<Session> measured() {
        auto session = std::make_unique<Session>();
        session->createProject(folder_.filePath(QString("s%1.ibuki").arg(++count_)));
        const auto asked = story::ask();
        session->perform(story::everythingOf(asked.document));
        const auto& logs = someLogs();
        const auto changes = importChanges(session->document(), asked.study, logs,
                                           proposeImport(session->document(), asked.study, logs));
        Acquired acquired;
        for (const auto& [index, id] : changes.recordings)
            acquired.recordings.push_back({id, logs[index].trace});
        session->perform(changes.set, acquired);
        Selection selection;
        selection.study = asked.study;
        session->select(selection);
        return session;
    }

    /// The only project of the folder that a test spoils.
    QString spoilt(const char* sql) {
        const QString path = folder_.filePath(QString("s%1.ibuki").arg(++count_));
        story::storeMeasured(path.toStdString());
        SQLite::Database database(path.toStdString(), SQLite::OPEN_READWRITE);
        database.exec(sql);
        return path;
    }

    /// Starts a change of the limit to far below every run.
    static void lowerTheLimit(Session& session) {
        Edit edit(session.document(), "Limit");
        Configuration configuration = *session.configuration();
        configuration.temperatureLimit = Celsius{50};
        edit.put(configuration);
        auto tasks = reductionTasks(edit.document(), *session.question());
        session.performReduced(std::move(edit), std::move(tasks));
    }

    static ChangeSet rename(const Session& session, const std::string& name) {
        Edit edit(session.document(), "Rename");
        Material material = session.document().all<Material>().begin()->second;
        material.name = name;
        edit.put(material);
        return edit.finish();
    }

private slots:
    void whileARunIsRecordedADamagedReductionIsToldOnly() {
        Session session;
        QSignalSpy told(&session, &Session::noticePosted);
        const QString path =
            spoilt("UPDATE run_reduction SET reduction = '{' WHERE id = (SELECT max(id) FROM "
                   "run_reduction)");
        QVERIFY(session.openProject(path));
        session.hold(true);
        QTRY_VERIFY_WITH_TIMEOUT(told.count() > 0, patienceMs);
        QVERIFY(told.front().front().toString().contains(path));
        QVERIFY(session.isOpen());
    }
    void aDamagedReductionIsToldAndClosesTheProject() {
        Session session;
        QSignalSpy refused(&session, &Session::refused);
        const QString path =
            spoilt("UPDATE run_reduction SET reduction = '{' WHERE id = (SELECT max(id) FROM "
                   "run_reduction)");
        QVERIFY(session.openProject(path)); // nobody asked for it yet
        QTRY_VERIFY_WITH_TIMEOUT(!session.isOpen(), patienceMs);
        QCOMPARE(refused.count(), 1);
        QVERIFY(refused.front().front().toString().contains(path));
    }
    void everyActionIsOneUndo() {
        const auto session = measured();
        QSignalSpy changed(session.get(), &Session::documentChanged);
        QVERIFY(session->perform(rename(*session, "Heron HV")));
        QCOMPARE(changed.count(), 1);
        QCOMPARE(session->undoStack().undoText(), QString("Rename"));
        session->undoStack().undo();
        QCOMPARE(session->document().all<Material>().begin()->second.name, std::string("Tern 11"));
        session->undoStack().redo();
        QCOMPARE(session->document().all<Material>().begin()->second.name, std::string("Heron HV"));
        QCOMPARE(changed.count(), 3);
    }
    void anEmptyActionLeavesNoTrace() {
        const auto session = measured();
        const int before = session->undoStack().count();
        QVERIFY(session->perform(ChangeSet{said("nothing"), {}}));
        QCOMPARE(session->undoStack().count(), before);
    }
    void selectionChoosesTheNewestStudyAndItsBench() {
        const auto session = measured();
        QVERIFY(session->study() && session->bench() && session->question() && session->configuration());
        QCOMPARE(session->study()->bench, session->bench()->id);
    }
    void aSelectedMountBringsItsMaterial() {
        const auto session = measured();
        const Mount* mount = mountsOf(session->document(), session->bench()->id).front();
        session->selectMount(mount->id);
        QCOMPARE(session->selection().material,
                 std::optional(materialAt(session->document(), mount->id, session->question()->site)->id));
    }
    void undoingAMountDropsItFromTheSelection() {
        const auto session = measured();
        session->selectMount(mountsOf(session->document(), session->bench()->id).front()->id);
        session->undoStack().undo();
        QVERIFY(!session->mount());
        QVERIFY(!session->selection().mount);
    }
    void reducingAgainFollowsTheLimit() {
        const auto session = measured();
        lowerTheLimit(*session);
        QVERIFY(session->work().isRunning());
        QTRY_VERIFY_WITH_TIMEOUT(!session->work().isRunning(), patienceMs);
        for (const auto& [id, stored] : session->document().all<RunReduction>())
            QVERIFY(stored.reduction->main()->limit.censored);
        session->undoStack().undo();
        for (const auto& [id, stored] : session->document().all<RunReduction>())
            QVERIFY(!stored.reduction->main()->limit.censored);
    }
    void reducingAgainCanBeCalledOff() {
        const auto session = measured();
        const int before = session->undoStack().count();
        lowerTheLimit(*session);
        session->work().cancel();
        QTRY_VERIFY_WITH_TIMEOUT(!session->work().isRunning(), patienceMs);
        QVERIFY(!session->configuration()->temperatureLimit);
        QCOMPARE(session->undoStack().count(), before);
    }
    void aChangeMeanwhileOutdatesAReduction() {
        const auto session = measured();
        QSignalSpy notices(session.get(), &Session::noticePosted);
        lowerTheLimit(*session);
        Edit edit(session->document(), "Rename");
        Bench bench = *session->bench();
        bench.name = "node-9";
        edit.put(bench);
        QVERIFY(session->perform(edit.finish()));
        QTRY_VERIFY_WITH_TIMEOUT(!session->work().isRunning(), patienceMs);
        QCOMPARE(notices.count(), 1);
        QVERIFY(!session->configuration()->temperatureLimit);
        QCOMPARE(session->bench()->name, std::string("node-9"));
    }
    void aSecondReductionIsRefusedWhileOneWorks() {
        const auto session = measured();
        QSignalSpy notices(session.get(), &Session::noticePosted);
        lowerTheLimit(*session);
        QSignalSpy changed(session.get(), &Session::documentChanged);
        Edit edit(session->document(), "Metric");
        Question question = *session->question();
        question.nominalPower = Watt{95};
        edit.put(question);
        auto tasks = reductionTasks(edit.document(), question);
        session->performReduced(std::move(edit), std::move(tasks));
        QCOMPARE(notices.count(), 1);
        QCOMPARE(notices.front().front().toString(),
                 QString("Metric: not done, because \"Limit\" is still at work. "
                         "Wait for it or call it off, then try again."));
        QCOMPARE(changed.count(), 1); // so that the field shows what is stored
        QTRY_VERIFY_WITH_TIMEOUT(!session->work().isRunning(), patienceMs);
        QCOMPARE(session->configuration()->temperatureLimit, std::optional(Celsius{50})); // the first is done
        QVERIFY(session->question()->nominalPower != std::optional(Watt{95}));
    }
    void aFactWaitsForTheReductionAtWork() {
        const auto session = measured();
        const Id<Study> study = session->study()->id;
        const auto see = [&](const Document& document) { return noteLook(document, study, {}); };
        lowerTheLimit(*session);
        const int before = session->undoStack().count();
        session->record(see);
        QVERIFY(session->document().all<InterimLook>().empty());
        QTRY_COMPARE_WITH_TIMEOUT(session->document().all<InterimLook>().size(), std::size_t{1}, patienceMs);
        QCOMPARE(session->configuration()->temperatureLimit, std::optional(Celsius{50})); // was not outdated
        QCOMPARE(session->undoStack().count(), before + 1); // the limit alone can be taken back
        session->record(see);                               // the same mounts are seen once
        QCOMPARE(session->document().all<InterimLook>().size(), std::size_t{1});
    }
    void theOpenProjectIsOpenByAllItsNames() {
        const auto session = measured();
        const QString link = folder_.filePath("another-name.ibuki");
        QVERIFY(QFile::link(session->path(), link));
        QSignalSpy refused(session.get(), &Session::refused);
        QSignalSpy changed(session.get(), &Session::projectChanged);
        QVERIFY(session->openProject(link));
        QCOMPARE(refused.count(), 0);
        QCOMPARE(changed.count(), 0); // and its undo stack is still there
    }
    void failuresPostOneSentenceAndChangeNothing() {
        const auto session = measured();
        QSignalSpy notices(session.get(), &Session::refused);
        const QString path = session->path();
        QVERIFY(!session->openProject("/nowhere/at/all.ibuki"));
        QVERIFY(!session->createProject(path));
        QVERIFY(!session->saveCopy(path));
        QCOMPARE(notices.count(), 3);
        QCOMPARE(session->path(), path);
        Edit edit(session->document(), "broken");
        MountApplication use;
        use.mount = Id<Mount>{424242};
        use.application = Id<Application>{424242};
        edit.add(use);
        const int before = session->undoStack().count();
        QVERIFY(!session->perform(edit.finish()));
        QCOMPARE(notices.count(), 4);
        QCOMPARE(session->undoStack().count(), before);
    }
    void aRefusalIsOverOnceAChangeSucceeds() {
        const auto session = measured();
        QSignalSpy over(session.get(), &Session::refusalOver);
        session->post("Copied");
        QVERIFY(session->perform(rename(*session, "Heron HV")));
        QCOMPARE(over.count(), 0); // news stay until they are dismissed
        session->refuse("A name is needed.");
        QVERIFY(session->perform(rename(*session, "Heron HX")));
        QVERIFY(session->perform(rename(*session, "Heron HY")));
        QCOMPARE(over.count(), 1);
        session->refuse("A name is needed.");
        session->post("Copied");
        QVERIFY(session->perform(rename(*session, "Heron HZ")));
        QCOMPARE(over.count(), 1);
    }
    void aClosedSessionAnswersQuietly() {
        Session session;
        QVERIFY(!session.isOpen());
        QVERIFY(!session.study() && !session.bench() && !session.mount() && !session.question());
        QVERIFY(!session.saveCopy("x"));
        session.readTrace(Id<Recording>{1}, &session, [](Trace) { QFAIL("there is none"); });
        QVERIFY(!session.perform(rename(*measured(), "x")));
    }
};

IBUKI_TEST(TestSession)
#include "tst_session.moc"
