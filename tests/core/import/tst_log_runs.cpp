// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/log_runs.h"
#include "core/import/recorded.h"
#include "support/laid.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// Loads of these powers after one another, in one log.
Trace logOf(const std::vector<double>& watts) {
    Trace whole;
    std::uint64_t seed = 5;
    for (double watt : watts) {
        SimulatedProtocol protocol;
        protocol.powerW = watt;
        protocol.loadS = 900;
        protocol.intervalS = 2;
        const Trace one = simulate({}, protocol, ++seed).trace;
        const double from = whole.timeS.empty() ? 0 : whole.timeS.back() + 2;
        if (whole.channels.empty()) {
            whole = one;
            continue;
        }
        for (double s : one.timeS) whole.timeS.push_back(from + s);
        for (std::size_t i = 0; i < whole.channels.size(); ++i)
            whole.channels[i].values.insert(whole.channels[i].values.end(), one.channels[i].values.begin(),
                                            one.channels[i].values.end());
    }
    return whole;
}

struct Seen {
    std::string load;
    int loadIndex = 0;
    int repeat = 0;
    Reduction reduction;
    std::vector<double> readings;
    bool operator==(const Seen&) const = default;
};

std::vector<Seen> seenOf(const Document& document, Id<Mount> mount) {
    std::vector<Seen> all;
    for (const Run* run : runsOf(document, mount)) {
        const Load* load = document.find(run->load);
        all.push_back(
            {load ? load->name : "-", run->loadIndex, run->repeat, *reductionOf(document, run->id), {}});
        for (const EnteredReading* reading : document.where(&EnteredReading::run, run->id))
            all.back().readings.push_back(reading->value);
    }
    return all;
}

} // namespace

class TestLogRuns : public QObject {
    Q_OBJECT

    /// The same log on one mount of a study, brought in and recorded.
    static std::pair<std::vector<Seen>, std::vector<Seen>> bothWays(const Trace& trace) {
        const story::Laid laid;
        const Slot slot = *laid.planned().front();
        ImportedLog log;
        log.fileName = "evening.csv";
        log.sha256 = "1";
        log.trace = trace;
        log.settings = settingsFor(laid.asked.document, Run{}, &laid.question);
        log.reduction = reduceByEveryMetric(trace, log.settings);
        ImportRow row;
        row.level = slot.level;
        row.slot = slot.id;
        row.mountName = "one";
        row.at = *parseInstant("2031-03-04 18:00");
        Document brought = laid.asked.document;
        apply(brought, importChanges(brought, laid.asked.study, {log}, {row}).set);

        Document recorded = laid.asked.document;
        RecordingWish wish;
        wish.bench = recorded.find(laid.asked.study)->bench;
        wish.slot = slot.id;
        wish.at = *row.at;
        const RecordingBegun begun = beginRecording(recorded, wish);
        apply(recorded, begun.set);
        apply(recorded,
              endRecording(recorded, begun.recording,
                           {static_cast<std::int64_t>(trace.samples()), trace.durationS(), {}}, &trace));
        return {seenOf(brought, *brought.find(slot.id)->mount), seenOf(recorded, *begun.mount)};
    }

private slots:
    void recordedOrBroughtInTheRunsAreTheSame_data() {
        QTest::addColumn<QList<double>>("watts");
        QTest::addColumn<int>("runs");
        QTest::newRow("one load") << QList<double>{150} << 1;
        QTest::newRow("two powers") << QList<double>{150, 126} << 2;
        QTest::newRow("cycles of one power") << QList<double>{150, 150, 150} << 3;
    }
    void recordedOrBroughtInTheRunsAreTheSame() {
        QFETCH(QList<double>, watts);
        QFETCH(int, runs);
        const auto [brought, recorded] = bothWays(logOf({watts.begin(), watts.end()}));
        QCOMPARE(static_cast<int>(brought.size()), runs);
        QVERIFY(brought == recorded);
    }
    void loadsOfOnePowerAreRunsOfOneLoad() {
        const auto seen = bothWays(logOf({150, 126, 150})).first;
        QCOMPARE(seen.size(), std::size_t{3});
        QCOMPARE(seen[0].load, seen[2].load);
        QVERIFY(seen[0].load != seen[1].load);
        QCOMPARE(seen[2].repeat, 2);
        QCOMPARE(seen[1].repeat, 1);
        QCOMPARE(seen[1].loadIndex, 1);
    }
    void aLogWithoutALoadHasOneRunWithoutAFigure() {
        const auto seen = bothWays(logOf({SimulatedBench{}.idleW})).first;
        QCOMPARE(seen.size(), std::size_t{1});
        QCOMPARE(seen.front().loadIndex, -1);
        QVERIFY(seen.front().reduction.loads.empty());
    }
};

IBUKI_TEST(TestLogRuns)
#include "tst_log_runs.moc"
