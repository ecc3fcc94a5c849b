// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/job_service.h"
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
    void whatALibraryThrowsIsAFailureAndNotCalledOff() {
        const std::vector<std::pair<std::function<void()>, QString>> cases{
            {[] { throw std::bad_alloc(); }, "memory-short"},
            {[] { throw std::runtime_error("the table is gone"); }, "job-failed"}};
        for (const auto& one : cases) {
            const auto fail = one.first;
            JobRunner runner;
            QString reported;
            QSignalSpy ended(&runner, &JobRunner::ended);
            QSignalSpy cancelled(&runner, &JobRunner::cancelled);
            runner.start<int>(
                [fail](std::stop_token, const Progress&) {
                    fail();
                    return 1;
                },
                [](int) {}, [&](const InputError& error) { reported = QString::fromStdString(error.code); });
            QVERIFY(ended.wait());
            QCOMPARE(reported, one.second);
            QCOMPARE(cancelled.count(), 0);
        }
    }
    void startingAnotherWaitsForNobody() {
        std::atomic<bool> release = false;
        std::atomic<bool> begun = false;
        JobRunner runner;
        int got = 0;
        const auto result = [&](int value) { got = value; };
        runner.start<int>(
            [&](std::stop_token, const Progress&) { // deaf to its being called off
                begun = true;
                while (!release) std::this_thread::yield();
                return 1;
            },
            result, [](const InputError&) {});
        while (!begun) std::this_thread::yield();
        QSignalSpy ended(&runner, &JobRunner::ended);
        runner.start<int>([](std::stop_token, const Progress&) { return 2; }, result,
                          [](const InputError&) {});
        QVERIFY(ended.wait()); // the first one is still at work
        QCOMPARE(got, 2);
        release = true;
    }
    void jobsOfOneNameFollowEachOtherAndOthersRunBesideThem() {
        JobService service;
        std::atomic<bool> release = false;
        QStringList order;
        const auto wait = [&](const std::stop_token&, const Progress&) {
            while (!release) std::this_thread::yield();
        };
        const auto none = [](const InputError&) {};
        service.queue(
            "keep", wait, [&] { order << "first"; }, none);
        service.queue(
            "keep", [](auto&&...) {}, [&] { order << "second"; }, none);
        service.queue(
            "read", [](auto&&...) {}, [&] { order << "beside"; }, none);
        QCOMPARE(service.waiting("keep"), std::size_t{1});
        QTRY_COMPARE(order, QStringList{"beside"});
        QVERIFY(service.running().contains("keep"));
        release = true;
        QTRY_COMPARE(order, (QStringList{"beside", "first", "second"}));
        QTRY_VERIFY(service.running().isEmpty());
    }
    void callingOffANameTakesWhatWaitsAlong() {
        JobService service;
        bool done = false;
        int reported = 0; // whoever queued it hears that it was called off, whichever view is there
        service.queue(
            "keep",
            [](const std::stop_token& stop, const Progress&) {
                while (!stop.stop_requested()) std::this_thread::yield();
            },
            [&] { done = true; }, [](const InputError&) {}, [&] { ++reported; });
        service.queue(
            "keep", [](auto&&...) {}, [&] { done = true; }, [](const InputError&) {});
        service.cancel("keep");
        QTRY_COMPARE(reported, 1);
        QTRY_VERIFY(service.running().isEmpty());
        QVERIFY(!done);
        QCOMPARE(service.waiting("keep"), std::size_t{0});
    }
    void theNewestOfItsNameOutdatesWhatRanAndWaited() {
        JobService service;
        QObject asker;
        QList<int> results;
        bool queuedDone = false;
        std::atomic<bool> begun = false;
        const auto take = [&](int value) { results << value; };
        const auto none = [](const InputError&) {};
        service.startNewest<int>(
            "try", &asker,
            [&begun](const std::stop_token& stop, const Progress&) {
                begun = true;
                while (!stop.stop_requested()) std::this_thread::yield();
                return 1;
            },
            take, none);
        while (!begun) std::this_thread::yield();
        service.queue(
            "try", [](auto&&...) {}, [&] { queuedDone = true; }, none);
        service.startNewest<int>(
            "try", &asker, [](auto&&...) { return 2; }, take, none);
        QTRY_VERIFY(!service.isRunning("try"));
        QCOMPARE(results, QList<int>{2});
        QVERIFY(!queuedDone);
    }
    void aJobEndsWithItsAskerAndTellsNobody() {
        JobService service;
        std::atomic<bool> stopped = false;
        bool reported = false;
        auto asker = std::make_unique<QObject>();
        service.startNewest<int>(
            "try", asker.get(),
            [&stopped](const std::stop_token& stop, const Progress&) {
                while (!stop.stop_requested()) std::this_thread::yield();
                stopped = true;
                return 1;
            },
            [&](int) { reported = true; }, [&](const InputError&) { reported = true; });
        asker.reset();
        QTRY_VERIFY(stopped);
        QTRY_VERIFY(!service.isRunning("try"));
        QVERIFY(!reported);
    }
    void anAskerThatGoesLeavesAnothersJobAlone() {
        JobService service;
        QObject second;
        int got = 0;
        std::atomic<bool> release = false;
        {
            QObject first;
            service.startNewest<int>(
                "try", &first, [](auto&&...) { return 1; }, [&](int value) { got = value; },
                [](const InputError&) {});
            service.startNewest<int>(
                "try", &second,
                [&release](const std::stop_token& stop, const Progress&) {
                    while (!release && !stop.stop_requested()) std::this_thread::yield();
                    return 2;
                },
                [&](int value) { got = value; }, [](const InputError&) {});
        }
        release = true;
        QTRY_COMPARE(got, 2);
    }
    void anErrorIsNotAResult() {
        JobRunner runner;
        QString code;
        bool done = false;
        runner.start<int>(
            [](std::stop_token, const Progress&) -> int { throw InputError("file-missing", {}); },
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
