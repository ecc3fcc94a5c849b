// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job.h"
#include "support/test_class.h"

#include <QSignalSpy>
#include <QtTest>
#include <atomic>

using namespace ibuki;

class TestJob : public QObject {
    Q_OBJECT
private slots:
    void aResultArrivesOnTheMainThread() {
        JobRunner runner;
        int got = 0;
        Qt::HANDLE where = nullptr;
        runner.start<int>(
            [](std::stop_token, const Progress& progress) {
                progress(0.5);
                return 42;
            },
            [&](int value) {
                got = value;
                where = QThread::currentThreadId();
            },
            [](const InputError&) {});
        QSignalSpy progressed(&runner, &JobRunner::progressed);
        QSignalSpy ended(&runner, &JobRunner::ended);
        QVERIFY(ended.wait());
        QCOMPARE(got, 42);
        QCOMPARE(where, QThread::currentThreadId());
        QCOMPARE(progressed.count(), 1);
        QVERIFY(!runner.isRunning());
    }
    void anErrorIsNotAResult() {
        JobRunner runner;
        QString code;
        bool done = false;
        runner.start<int>(
            [](std::stop_token, const Progress&) -> int { throw InputError("file-missing", {}, "gone", ""); },
            [&](int) { done = true; },
            [&](const InputError& error) { code = QString::fromStdString(error.code); });
        QSignalSpy ended(&runner, &JobRunner::ended);
        QVERIFY(ended.wait());
        QCOMPARE(code, QString("file-missing"));
        QVERIFY(!done);
    }
    void cancellingIsNoError() {
        JobRunner runner;
        bool called = false;
        std::atomic<bool> begun = false;
        runner.start<int>(
            [&begun](const std::stop_token& stop, const Progress&) {
                begun = true;
                while (!stop.stop_requested()) std::this_thread::yield();
                return 1;
            },
            [&](int) { called = true; }, [&](const InputError&) { called = true; });
        while (!begun) std::this_thread::yield();
        QSignalSpy cancelled(&runner, &JobRunner::cancelled);
        runner.cancel();
        QVERIFY(cancelled.wait());
        QVERIFY(!called);
    }
    void anOlderResultNeverOverwritesANewer() {
        JobRunner runner;
        QList<int> results;
        for (int i = 1; i <= 3; ++i)
            runner.start<int>([i](std::stop_token, const Progress&) { return i; },
                              [&](int value) { results << value; }, [](const InputError&) {});
        QSignalSpy ended(&runner, &JobRunner::ended);
        QVERIFY(ended.wait());
        QCOMPARE(results, QList<int>{3});
    }
    void closingWaitsForTheWorker() {
        std::atomic<bool> finished = false;
        {
            JobRunner runner;
            runner.start<int>(
                [&finished](const std::stop_token& stop, const Progress&) {
                    while (!stop.stop_requested()) std::this_thread::yield();
                    finished = true;
                    return 1;
                },
                [](int) {}, [](const InputError&) {});
        }
        QVERIFY(finished);
    }
};

IBUKI_TEST(TestJob)
#include "tst_job.moc"
