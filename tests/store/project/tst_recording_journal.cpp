// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/nan.h"
#include "core/base/random.h"
#include "core/setup/bench_template.h"
#include "store/project/project.h"
#include "support/faulty_disk.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <cmath>
#include <sys/wait.h>
#include <unistd.h>

using namespace ibuki;
namespace fs = std::filesystem;

namespace {

struct Live {
    Project project;
    Id<Recording> recording;
};

/// A project with an open recording that has no rows yet.
Live opened(const fs::path& path) {
    Live live{fs::exists(path) ? Project::open(path) : Project::create(path), {}};
    Edit edit(live.project.document(), "begin");
    Recording recording;
    const auto& benches = live.project.document().all<Bench>();
    recording.bench =
        benches.empty() ? addBench(edit, BenchTemplate::liddedChip, "node-2") : benches.begin()->first;
    recording.fileName = "live";
    recording.state = RecordingState::open;
    live.recording = edit.add(recording);
    live.project.apply(edit.finish());
    return live;
}

std::vector<TimedRow> rowsOf(Random& random, double& time, std::size_t count, std::size_t width) {
    std::vector<TimedRow> rows;
    for (std::size_t i = 0; i < count; ++i) {
        time += 0.1 + random.uniform();
        TimedRow row{time, {}};
        for (std::size_t k = 0; k < width; ++k)
            row.values.push_back(random.uniform() < 0.1 ? ibuki::nan : 40 + 30 * random.normal());
        rows.push_back(std::move(row));
    }
    return rows;
}

bool same(double a, double b) { return a == b || (std::isnan(a) && std::isnan(b)); }

/// Every number as it was appended.
bool holds(const Trace& trace, const std::vector<TimedRow>& rows, std::size_t width) {
    if (trace.samples() != rows.size()) return false;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (trace.timeS[i] != rows[i].timeS - rows.front().timeS) return false;
        for (std::size_t k = 0; k < width; ++k)
            if (!same(trace.channels[k].values[i],
                      k < rows[i].values.size() ? rows[i].values[k] : ibuki::nan))
                return false;
    }
    return true;
}

const std::vector<ChannelInfo> two{{"Core 0 [°C]", Role::core, 0, Unit::celsius},
                                   {"Room [°C]", Role::ambient, 0, Unit::celsius}};

} // namespace

class TestRecordingJournal : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;
    fs::path fresh() { return folder_.filePath(QString("%1.ibuki").arg(++count_)).toStdString(); }

private slots:
    void everyNumberComesBack() { // through many blocks, over the border from rows to columns
        Live live = opened(fresh());
        RecordingJournal journal(live.project.path(), live.recording);
        journal.addChannels(two);
        Random random(3);
        double time = 5;
        std::vector<TimedRow> all;
        while (all.size() < 10'000) {
            const auto rows = rowsOf(random, time, 1 + static_cast<std::size_t>(random.uniform() * 300), 2);
            journal.append(rows);
            all.insert(all.end(), rows.begin(), rows.end());
        }
        QCOMPARE(journal.extent().samples, static_cast<std::int64_t>(all.size()));
        QVERIFY_NEAR(journal.extent().durationS, all.back().timeS - all.front().timeS, 1e-9);
        QVERIFY(holds(live.project.loadTrace(live.recording), all, 2)); // while it is being made
        QCOMPARE(live.project.liveExtentOf(live.recording), journal.extent());
    }
    void aChannelMayComeLater() {
        Live live = opened(fresh());
        RecordingJournal journal(live.project.path(), live.recording);
        journal.addChannels({two[0]});
        Random random(4);
        double time = 0;
        std::vector<TimedRow> all = rowsOf(random, time, 5'000, 1);
        journal.append(all);
        journal.addChannels({two[1]});
        const auto rest = rowsOf(random, time, 300, 2);
        journal.append(rest);
        all.insert(all.end(), rest.begin(), rest.end());
        QVERIFY(holds(live.project.loadTrace(live.recording), all, 2));
    }
    void whatWasOpenIsInterruptedAtTheNextOpening() {
        const fs::path path = fresh();
        Random random(5);
        double time = 0;
        const auto rows = rowsOf(random, time, 700, 2);
        Id<Recording> id;
        {
            Live live = opened(path);
            id = live.recording;
            RecordingJournal journal(path, id);
            journal.addChannels(two);
            journal.append(rows);
        }
        {
            const Project looked = Project::open(path, Access::readOnly); // writes nothing
            QCOMPARE(looked.document().find(id)->state, RecordingState::open);
            QVERIFY(!looked.isWrittenElsewhere());
            QVERIFY(holds(looked.loadTrace(id), rows, 2));
        }
        const Project project = Project::open(path);
        const Recording& recording = *project.document().find(id);
        QCOMPARE(recording.state, RecordingState::interrupted);
        QCOMPARE(recording.samples, std::int64_t{700});
        QVERIFY_NEAR(recording.durationS, rows.back().timeS - rows.front().timeS, 1e-9);
        QVERIFY(holds(project.loadTrace(id), rows, 2));
        QCOMPARE(project.history().back().title.code, std::string("edit-recover"));
    }
    void aKillLosesNothingThatWasAppended() { // the child dies by SIGKILL in the middle
        for (int round = 0; round < 5; ++round) {
            const fs::path path = fresh();
            int reported[2];
            QCOMPARE(::pipe(reported), 0);
            const pid_t child = ::fork();
            if (child == 0) {
                Live live = opened(path);
                RecordingJournal journal(path, live.recording);
                journal.addChannels(two);
                Random random(static_cast<std::uint64_t>(round));
                double time = 0;
                for (std::uint32_t rows = 37;; rows += 37) {
                    journal.append(rowsOf(random, time, 37, 2));
                    if (::write(reported[1], &rows, sizeof rows) != sizeof rows) ::_exit(1);
                }
            }
            std::uint32_t saved = 0;
            for (int i = 0; i < 40 + 90 * round; ++i)
                QCOMPARE(::read(reported[0], &saved, sizeof saved), static_cast<ssize_t>(sizeof saved));
            ::kill(child, SIGKILL);
            ::waitpid(child, nullptr, 0);
            ::close(reported[1]);
            while (::read(reported[0], &saved, sizeof saved) == sizeof saved) {
            }
            ::close(reported[0]);
            const Project project = Project::open(path);
            const Id<Recording> id = project.document().all<Recording>().begin()->first;
            const Trace trace = project.loadTrace(id);
            QVERIFY(trace.samples() >= saved);
            Random random(static_cast<std::uint64_t>(round));
            double time = 0;
            std::vector<TimedRow> sent;
            while (sent.size() < trace.samples())
                for (TimedRow& row : rowsOf(random, time, 37, 2)) sent.push_back(row);
            QVERIFY(holds(trace, sent, 2));
        }
    }
    void aPowerCutLosesNothingThatWasAppended() { // a hundred cuts, each in the middle of something
        Random random(99);
        for (int round = 0; round < 100; ++round) {
            const fs::path path = fresh();
            std::vector<TimedRow> first;
            std::vector<TimedRow> appended;
            Id<Recording> earlier;
            Id<Recording> cut;
            story::FaultyDisk disk;
            {
                Live live = opened(path);
                earlier = live.recording;
                RecordingJournal journal(path, earlier);
                journal.addChannels(two);
                double time = 0;
                first = rowsOf(random, time, 5'000, 2);
                journal.append(first);
            }
            {
                Live live = opened(path); // the first one is interrupted by now
                cut = live.recording;
                RecordingJournal journal(path, cut);
                journal.addChannels(two);
                double time = 0;
                const int appends = static_cast<int>(random.uniform() * 40);
                for (int i = 0; i < appends; ++i) {
                    const auto rows =
                        rowsOf(random, time, 1 + static_cast<std::size_t>(400 * random.uniform()), 2);
                    journal.append(rows);
                    appended.insert(appended.end(), rows.begin(), rows.end());
                }
                disk.cutPower();
                const auto never = rowsOf(random, time, 10, 2);
                QVERIFY_THROWS_EXCEPTION(InputError, journal.append(never));
            }
            disk.settle(random);
            const Project project = Project::open(path);
            QVERIFY(holds(project.loadTrace(earlier), first, 2));
            if (appended.empty()) continue; // nothing of it was ever synced
            QCOMPARE(project.document().find(cut)->state, RecordingState::interrupted);
            QVERIFY(holds(project.loadTrace(cut), appended, 2));
        }
    }
    void aFullDiskStopsNothingForGood() { // a hundred times: refused whole, taken later
        Random random(7);
        for (int round = 0; round < 100; ++round) {
            const fs::path path = fresh();
            story::FaultyDisk disk;
            Live live = opened(path);
            RecordingJournal journal(path, live.recording);
            journal.addChannels(two);
            double time = 0;
            std::vector<TimedRow> taken;
            int refused = 0;
            disk.leaveRoom(static_cast<std::int64_t>(400'000 * random.uniform()));
            for (int i = 0; i < 60; ++i) {
                const auto rows =
                    rowsOf(random, time, 1 + static_cast<std::size_t>(500 * random.uniform()), 2);
                try {
                    journal.append(rows);
                } catch (const InputError& error) {
                    QCOMPARE(error.code, std::string("disk-full"));
                    ++refused;
                    QCOMPARE(live.project.liveExtentOf(live.recording).samples,
                             static_cast<std::int64_t>(taken.size())); // none of them
                    disk.leaveRoom(static_cast<std::int64_t>(400'000 * random.uniform()) + 200'000);
                    journal.append(rows);
                }
                taken.insert(taken.end(), rows.begin(), rows.end());
            }
            QVERIFY(refused > 0);
            QVERIFY(holds(live.project.loadTrace(live.recording), taken, 2));
        }
    }
    void damagedBlocksAreRefused() {
        const fs::path path = fresh();
        Live live = opened(path);
        RecordingJournal journal(path, live.recording);
        journal.addChannels(two);
        journal.append({{1, {1, 2}}, {0, {1, 2}}}); // a time that goes back: a mistake of the caller's
        QVERIFY_THROWS_EXCEPTION(InputError, live.project.loadTrace(live.recording));
    }
    void anUnknownPlaceIsRefused() {
        QVERIFY_THROWS_EXCEPTION(InputError, RecordingJournal("/nowhere/p.ibuki", Id<Recording>{1}));
    }
};

IBUKI_TEST(TestRecordingJournal)
#include "tst_recording_journal.moc"
