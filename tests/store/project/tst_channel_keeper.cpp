// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/digest.h"
#include "store/project/channel_keeper.h"
#include "store/project/packing.h"
#include "store/project/project.h"
#include "support/entities.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <QtTest>
#include <fmt/format.h>
#include <fstream>

using namespace ibuki;

class TestChannelKeeper : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::string path(const char* name) const { return folder_.filePath(name).toStdString(); }

    /// 150,000 rows, more than two blocks; every hundredth repeats the time of the one before.
    std::string log_ = [] {
        std::string text = "Time [s],Core 0 [°C],Rail [V],Remark\n";
        for (int i = 0; i < 150'000; ++i)
            text +=
                fmt::format("{},{},{}.5,{}\n", i % 100 == 1 ? i - 1 : i, 40 + i % 5, i, i % 2 ? "odd" : "");
        return text;
    }();

    KeepTask brought(const std::string& project) {
        std::ofstream(path("log.csv")) << log_;
        Project open = Project::create(project);
        Edit edit(open.document(), "log");
        Recording recording;
        recording.bench = edit.add(story::benchNamed("node-2"));
        recording.sha256 = sha256(log_);
        const Id<Recording> id = edit.add(recording);
        const LogReading reading = readLogReported(log_, "log.csv");
        open.apply(edit.finish(), {{{id, reading.trace}}, {}});
        return {id, path("log.csv"), sha256(log_), {}, reading.keptRows, MappedFile(path("log.csv")).stamp()};
    }

private slots:
    void otherChannelsComeBackWhole() {
        const KeepTask task = brought(path("a.ibuki"));
        QVERIFY(!loadKeptChannel(path("a.ibuki"), task.recording, "Rail [V]")); // not yet
        keepOtherChannels(path("a.ibuki"), task);
        const auto rail = loadKeptChannel(path("a.ibuki"), task.recording, "Rail [V]");
        const Trace trace = Project::open(path("a.ibuki"), Access::readOnly).loadTrace(task.recording);
        QVERIFY(rail.has_value());
        QCOMPARE(rail->values.size(), trace.samples()); // the same rows were kept
        QCOMPARE(rail->values.front(), 0.5);
        QCOMPARE(rail->values[1], 2.5); // row 1 repeated a time
        QCOMPARE(rail->values.back(), 149'999.5);
        const auto remark = loadKeptChannel(path("a.ibuki"), task.recording, "Remark");
        QVERIFY(remark && remark->words.size() == trace.samples());
        QCOMPARE(remark->words.back(), std::string("odd"));
        QCOMPARE(channelsOf(trace, Role::core).size(), std::size_t{1});
        QVERIFY(!loadKeptChannel(path("a.ibuki"), task.recording, "Core 0 [°C]")); // it stands with the trace
    }
    void aChangedLogIsRefused() {
        const KeepTask task = brought(path("b.ibuki"));
        std::ofstream(path("log.csv"), std::ios::app) << "1,2,3,4\n";
        try {
            keepOtherChannels(path("b.ibuki"), task);
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("log-changed"));
        }
    }
    void calledOffItCountsAsNotKept() {
        KeepTask task = brought(path("c.ibuki"));
        std::stop_source stop;
        task.options.stop = stop.get_token();
        task.options.progress = [&](double share) {
            if (share > 0.6) stop.request_stop(); // a block is written by then
        };
        QVERIFY_THROWS_EXCEPTION(Cancelled, keepOtherChannels(path("c.ibuki"), task));
        QVERIFY(!loadKeptChannel(path("c.ibuki"), task.recording, "Rail [V]"));
    }
};

IBUKI_TEST(TestChannelKeeper)
#include "tst_channel_keeper.moc"
