// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/clock/mount_history.h"
#include "core/domain/lookup.h"
#include "core/domain/run_reduction.h"
#include "core/import/recorded.h"
#include "core/setup/run_setup.h"
#include "core/simulate/simulated_bench.h"
#include "support/laid.h"
#include "support/project_files.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

const Instant evening = *makeInstant(2031, 3, 4, 18 * 3'600'000LL);

/// The first planned mount, in the evening.
RecordingWish firstOf(const story::Laid& laid) {
    RecordingWish wish;
    wish.bench = laid.asked.document.find(laid.asked.study)->bench;
    wish.slot = laid.planned().front()->id;
    wish.at = evening;
    return wish;
}

Trace recordedTrace(double powerW = 150) {
    SimulatedProtocol protocol;
    protocol.powerW = powerW;
    return simulate({}, protocol, 3).trace;
}

} // namespace

class TestRecorded : public QObject {
    Q_OBJECT
private slots:
    void aSlotGetsItsMountAtTheBegin() {
        story::Laid laid;
        Document& document = laid.asked.document;
        const Slot slot = *laid.planned().front();
        RecordingWish wish;
        wish.bench = document.find(laid.asked.study)->bench;
        wish.slot = slot.id;
        wish.at = evening;
        wish.manualWorkBegan = Instant{evening.ms - 600'000};
        const RecordingBegun begun = beginRecording(document, wish);
        apply(document, begun.set);
        QCOMPARE(document.find(slot.id)->mount, begun.mount);
        const Recording& recording = *document.find(begun.recording);
        QCOMPARE(recording.state, RecordingState::open);
        QCOMPARE(document.where(&Run::recording, begun.recording).size(), std::size_t{1});
        const Application* made =
            applicationAt(document, *begun.mount, firstQuestion(document, laid.asked.study)->site);
        QVERIFY(made && made->start && made->end);
        QCOMPARE(made->end->ms - made->start->ms, std::int64_t{600'000});
        QCOMPARE(document.find(laid.asked.study)->state, StudyState::measuring);
        QCOMPARE(story::codeOf([&] { beginRecording(document, wish); }),
                 QString("record-slot")); // filled by now
    }
    void itsEndHasFiguresAndClocks() {
        story::Laid laid;
        Document& document = laid.asked.document;
        RecordingWish wish = firstOf(laid);
        wish.manualWorkBegan = Instant{evening.ms - 600'000};
        RecordingBegun begun = beginRecording(document, wish);
        apply(document, begun.set);
        const Trace trace = recordedTrace();
        const ChangeSet end =
            endRecording(document, begun.recording,
                         {static_cast<std::int64_t>(trace.samples()), trace.durationS(), {}}, &trace);
        apply(document, end);
        const Run first = *document.where(&Run::recording, begun.recording).front();
        QVERIFY(reductionOf(document, first.id));
        QVERIFY(first.load);
        const auto clockOf = [&](const Run& run) {
            return historyOf(document, run.mount).at(*loadBegan(document, run));
        };
        QVERIFY(std::abs(*clockOf(first).hours - 300.0 / 3'600) < 0.003); // 5 min of idle before the load
        QVERIFY(clockOf(first).loadHours < 0.001); // between two points of the course it grows evenly
        QCOMPARE(clockOf(first).cycles, 0.0);

        RecordingWish again; // two hours later, the same mount
        again.bench = document.find(laid.asked.study)->bench;
        again.mount = begun.mount;
        again.at = Instant{evening.ms + 7'200'000};
        const RecordingBegun second = beginRecording(document, again);
        apply(document, second.set);
        apply(document,
              endRecording(document, second.recording,
                           {static_cast<std::int64_t>(trace.samples()), trace.durationS(), {}}, &trace));
        const Run then = *document.where(&Run::recording, second.recording).front();
        QCOMPARE(then.repeat, 2);
        const MountClock clock = clockOf(then);
        QVERIFY(std::abs(clock.loadHours - 2'400.0 / 3'600) < 0.01); // the 40 min of the first
        QVERIFY(std::abs(clock.cycles - 1) <= 0.5); // that of the first; its last half may stay open
        QVERIFY(std::abs(*clock.hours - 7'500.0 / 3'600) < 0.01);
    }
    void oneUndoTakesItBackAndKeepsTheRecording() {
        story::Laid laid;
        Document& document = laid.asked.document;
        const Document before = document;
        RecordingWish wish = firstOf(laid);
        const RecordingBegun begun = beginRecording(document, wish);
        apply(document, begun.set);
        const Trace trace = recordedTrace();
        const ChangeSet end =
            endRecording(document, begun.recording,
                         {static_cast<std::int64_t>(trace.samples()), trace.durationS(), {}}, &trace);
        apply(document, end);
        apply(document, inverse(joined(begun.set, end)));
        QCOMPARE(document.all<Mount>().size(), before.all<Mount>().size());
        QCOMPARE(document.all<Run>().size(), before.all<Run>().size());
        QVERIFY(!document.find(*wish.slot)->mount);
        const Recording& kept = *document.find(begun.recording);
        QVERIFY(kept.withdrawn);
        QCOMPARE(kept.state, RecordingState::closed);
        QCOMPARE(kept.samples, static_cast<std::int64_t>(trace.samples()));
    }
    void aLaterRunIsDoneByBeingRecorded() {
        story::Laid laid;
        Document& document = laid.asked.document;
        laid.comeBackAfter("24 h");
        RecordingWish wish = firstOf(laid);
        const RecordingBegun begun = beginRecording(document, wish);
        apply(document, begun.set);
        const FollowUp later = *document.where(&FollowUp::slot, *wish.slot).front();
        QVERIFY(!later.done);
        RecordingWish again;
        again.bench = wish.bench;
        again.mount = begun.mount;
        again.followUp = later.id;
        again.at = Instant{evening.ms + 24 * 3'600'000LL};
        const RecordingBegun check = beginRecording(document, again);
        apply(document, check.set);
        QVERIFY(document.find(later.id)->done);
        QCOMPARE(document.where(&Run::recording, check.recording).front()->purpose, Purpose::check);
        apply(document, inverse(check.set));
        QVERIFY(!document.find(later.id)->done);
    }
    void whatEndedWithoutFiguresIsFound() {
        story::Laid laid;
        Document& document = laid.asked.document;
        RecordingWish wish = firstOf(laid);
        const RecordingBegun begun = beginRecording(document, wish);
        apply(document, begun.set);
        QVERIFY(recordingsWithoutFigures(document).empty()); // still open
        Recording stopped = *document.find(begun.recording);
        stopped.state = RecordingState::interrupted;
        stopped.samples = 100;
        document.put(stopped);
        QCOMPARE(recordingsWithoutFigures(document), (std::vector<Id<Recording>>{begun.recording}));
    }
    void earlierMountsOfTheLevelAreTold() {
        story::Laid laid;
        Document& document = laid.asked.document;
        const auto logs = story::nineLogs();
        apply(document,
              importChanges(document, laid.asked.study, logs, proposeImport(document, laid.asked.study, logs))
                  .set);
        const auto made = slotsOf(document, laid.asked.study);
        const auto earlier = earlierRuns(document, laid.asked.study, made.front()->id);
        QCOMPARE(earlier.size(), std::size_t{8}); // all but its own
        QCOMPARE(std::count_if(earlier.begin(), earlier.end(),
                               [](const EarlierRun& one) { return one.sameLevel; }),
                 std::ptrdiff_t{2});
        QVERIFY(monitorRules(document, laid.asked.study).typicalAmbientC.has_value());
    }
};

IBUKI_TEST(TestRecorded)
#include "tst_recorded.moc"
