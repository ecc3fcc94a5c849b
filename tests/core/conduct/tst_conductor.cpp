// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/conductor.h"
#include "core/domain/words.h"
#include "core/plan/step_times.h"
#include "core/simulate/simulated_bench.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

Load loadOf(const char* name, double watt) {
    Load load;
    load.name = name;
    load.target = Watt{watt};
    return load;
}

/// Runs the protocol on a simulated bench at the speed of the processor.
struct Rehearsal {
    std::vector<StepEvent> events;
    std::vector<StepOccurrence> steps;
    double lastS = 0;
    double leftAtSoakEndK = 0; ///< true rise that was still to come
};

Rehearsal rehearse(const SimulatedBench& bench, std::vector<StepOccurrence> steps, std::uint64_t seed) {
    Rehearsal rehearsal{{}, steps, 0, 0};
    Conductor conductor(std::move(steps));
    BenchSimulation simulation(bench, 1, seed);
    SimulatedBench silent = bench; // the same without noise: what is truly left
    silent.sensorNoiseK = silent.sensorStepK = silent.coreSpreadK = 0;
    silent.ambientNoiseK = silent.ambientStepK = silent.ambientSwingK = silent.ambientDriftKPerH = 0;
    BenchSimulation truth(silent, 1, seed);
    for (int i = 0; i < 6 * 3'600 && !conductor.finished(); ++i) {
        const auto values = simulation.next(conductor.wantedW());
        const auto still = truth.next(conductor.wantedW());
        const auto wanted = conductor.wantedW();
        GateSample sample{static_cast<double>(i), {}, {}};
        sample.chipC = *std::max_element(values.begin(), values.begin() + bench.cores);
        sample.ambientC = values[static_cast<std::size_t>(bench.cores) + 1];
        for (const StepEvent& event : conductor.take(sample)) {
            if (event.state != StepState::begun && rehearsal.steps[event.step].kind == StepKind::soak)
                rehearsal.leftAtSoakEndK =
                    truth.trueDeltaK(*wanted)
                    - (still.front() - still[static_cast<std::size_t>(bench.cores) + 1]);
            rehearsal.events.push_back(event);
        }
        rehearsal.lastS = i;
    }
    return rehearsal;
}

SimulatedBench loop() { // a closed loop: docs/methods.md F.1's ladder with 1,833 J/K of coolant
    SimulatedBench bench;
    bench.layers = {{0.26, 0.057}, {7.7, 0.060}, {115, 0.035}, {1'833, 0.10}};
    return bench;
}

} // namespace

class TestConductor : public QObject {
    Q_OBJECT
private slots:
    void stepsAreLaidOutForEachLoad() {
        const Load low = loadOf("120 W", 120);
        const Load high = loadOf("180 W", 180);
        const auto steps =
            conductedSteps(presetSteps(ProtocolPreset::phaseChange, Id<Study>{1}), {&low, &high});
        std::vector<std::string> reported;
        for (const StepOccurrence& step : steps)
            reported.push_back(std::to_string(static_cast<int>(step.kind)) + step.load);
        using enum StepKind;
        const auto k = [](StepKind kind, const char* load) {
            return std::to_string(static_cast<int>(kind)) + load;
        };
        QCOMPARE(reported, (std::vector<std::string>{k(condition, "180 W"), k(rest, ""), k(settle, ""),
                                                     k(idle, ""), k(soak, "120 W"), k(measure, "120 W"),
                                                     k(soak, "180 W"), k(measure, "180 W"), k(cool, "")}));
        QCOMPARE(steps[0].powerW, std::optional(180.0));
        QVERIFY(!steps[1].powerW);
    }
    void timedStepsEndWithTheirMinutes() {
        Conductor conductor({{StepKind::idle, "", {}, 1, GateKind::none, 0},
                             {StepKind::measure, "x", 100, 0.5, GateKind::none, 0}});
        std::vector<StepEvent> events;
        for (int i = 0; i <= 100; ++i)
            for (const StepEvent& event : conductor.take({static_cast<double>(i), 40, 21}))
                events.push_back(event);
        QCOMPARE(events.size(), std::size_t{4});
        QCOMPARE(events[1].state, StepState::done);
        QCOMPARE(events[1].timeS, 60.0);
        QCOMPARE(events[2].timeS, 60.0); // the next begins at once
        QCOMPARE(events[3].timeS, 90.0);
        QVERIFY(conductor.finished() && !conductor.wantedW());
        QVERIFY(conductor.take({101, 40, 21}).empty());
    }
    void aGateThatNeverOpensTimesOut() {
        Conductor conductor({{StepKind::settle, "", {}, 5, GateKind::chipSlopeBelow, 0.1}});
        std::vector<StepEvent> events;
        for (int i = 0; i <= 400; ++i)
            for (const StepEvent& event : conductor.take({static_cast<double>(i), 40 + 0.01 * i, 21}))
                events.push_back(event);
        QCOMPARE(events.back().state, StepState::timedOut); // 0.6 K/min
        QCOMPARE(events.back().timeS, 300.0);
    }
    void aLateLoadIsWaitedFor() { // it is started by hand, four minutes after it was asked for
        Conductor conductor({{StepKind::idle, "", {}, 1, GateKind::none, 0},
                             {StepKind::soak, "x", 100, 60, GateKind::remainingBelow, 0.2},
                             {StepKind::measure, "x", 100, 1, GateKind::none, 0}});
        constexpr double loadS = 300;
        std::optional<double> soaked;
        for (int i = 0; i <= 1'500 && !soaked; ++i) {
            const double underS = std::max(0.0, i - loadS);
            const GateSample sample{static_cast<double>(i), 40 + 30 * (1 - std::exp(-underS / 60)), 21,
                                    i < loadS ? 28.0 : 100.0};
            for (const StepEvent& event : conductor.take(sample))
                if (event.state == StepState::done && event.step == 1) soaked = event.timeS;
            if (i > 60 && i < loadS) QVERIFY(conductor.waitsForLoad());
            if (i == 301) QCOMPARE(conductor.beganS(), loadS);
        }
        QVERIFY(soaked);
        QVERIFY2(*soaked > loadS + 240,
                 qPrintable(QString::number(*soaked))); // 30 K e^{−t/60 s} < 0.2 K: 300 s
        QVERIFY(!conductor.waitsForLoad());             // the measuring step's load runs already
    }
    void aRiseShowsALoadWhereNoPowerIsRead() {
        Conductor conductor({{StepKind::idle, "", {}, 1, GateKind::none, 0},
                             {StepKind::soak, "x", {}, 2, GateKind::none, 0}});
        for (int i = 0; i <= 100; ++i) conductor.take({static_cast<double>(i), 40, 21});
        QVERIFY(conductor.waitsForLoad());
        conductor.take({101, 46, 21});
        QVERIFY(!conductor.waitsForLoad());
        for (int i = 102; i <= 220; ++i) conductor.take({static_cast<double>(i), 60, 21});
        QVERIFY(!conductor.finished()); // two minutes of load, not of waiting
        conductor.take({221, 60, 21});
        QVERIFY(conductor.finished());
    }
    void aLoadThatNeverComesIsTold() {
        Conductor conductor({{StepKind::idle, "", {}, 1, GateKind::none, 0},
                             {StepKind::soak, "x", 100, 5, GateKind::remainingBelow, 0.2}});
        std::vector<StepEvent> events;
        for (int i = 0; i <= 400; ++i)
            for (const StepEvent& event : conductor.take({static_cast<double>(i), 40, 21, 28}))
                events.push_back(event);
        QCOMPARE(events.back().state, StepState::timedOut);
        QCOMPARE(events.back().timeS, 360.0);
        QVERIFY(events.back().loadNotSeen);
    }
    void skippingGoesOn() {
        Conductor conductor({{StepKind::rest, "", {}, 600, GateKind::none, 0},
                             {StepKind::idle, "", {}, 1, GateKind::none, 0}});
        conductor.take({0, 40, 21});
        const auto events = conductor.skip(5);
        QCOMPARE(events.size(), std::size_t{2});
        QCOMPARE(events[0].state, StepState::skipped);
        QCOMPARE(conductor.current()->kind, StepKind::idle);
    }
    void aWholeProtocolPassesItsGates() { // three hours of a loop at the speed of the processor
        const Load load = loadOf("150 W", 150);
        const Rehearsal rehearsal =
            rehearse(loop(), conductedSteps(presetSteps(ProtocolPreset::liquid, Id<Study>{1}), {&load}), 3);
        std::size_t ended = 0;
        for (const StepEvent& event : rehearsal.events)
            if (event.state != StepState::begun) {
                QCOMPARE(event.step, ended++);
                QCOMPARE(event.state, StepState::done);
            }
        QCOMPARE(ended, rehearsal.steps.size());
        QVERIFY(rehearsal.leftAtSoakEndK < 0.4);
    }
    /// At most 2 % of soak gates may open with more than twice their limit left: of 30 benches at most 2 are
    /// let pass (with a true rate of 2 % more come in 2.2 % of such tests; the seeds are fixed, 100 gave
    /// none).
    void gatesSeldomOpenEarly() {
        int early = 0;
        int opened = 0;
        for (std::uint64_t seed = 1; seed <= 30; ++seed) {
            SimulatedBench bench = seed % 2 == 0 ? loop() : SimulatedBench{};
            bench.coreSeed = seed;
            const Rehearsal rehearsal =
                rehearse(bench,
                         {{StepKind::idle, "", {}, 2, GateKind::none, 0},
                          {StepKind::soak, "150 W", 150, 75, GateKind::remainingBelow, 0.2}},
                         seed);
            opened += rehearsal.events.back().state == StepState::done ? 1 : 0;
            early += rehearsal.leftAtSoakEndK > 0.4 ? 1 : 0;
        }
        QVERIFY2(opened >= 28, qPrintable(QString::number(opened)));
        QVERIFY2(early <= 2, qPrintable(QString::number(early)));
    }
    void theEndIsPredictedHalfWay() { // within ± 20 % on most: the time at which 0.2 K is left
        int within = 0;
        for (std::uint64_t seed = 1; seed <= 20; ++seed) {
            SimulatedBench bench = loop();
            bench.coreSeed = seed;
            BenchSimulation simulation(bench, 1, seed);
            GateWatch watch(GateKind::remainingBelow, 0.2);
            // 195.9 s, 15.8 K: 0.2 K is left after τ ln(a/0.2) = 855 s of load.
            std::optional<double> reported;
            for (int i = 0; i < 430; ++i) {
                const auto values = simulation.next(i > 0 ? std::optional(150.0) : std::nullopt);
                GateSample sample{static_cast<double>(i),
                                  *std::max_element(values.begin(), values.begin() + 8), values[9]};
                watch.take(sample);
                if (watch.reading().opensInS) reported = i + *watch.reading().opensInS;
            }
            within += reported && std::abs(*reported - 855) < 0.2 * 855 ? 1 : 0;
        }
        QVERIFY2(within >= 16, qPrintable(QString::number(within)));
    }
    // States and words of the user: a table of what each does in each state.
    void wordsOfTheUser_data() {
        QTest::addColumn<QString>("words");
        QTest::addColumn<QString>("reported");
        const auto row = [](const char* name, const char* words, const char* reported) {
            QTest::addRow("%s", name) << words << reported;
        };
        row("hands wait for their word", "t t t", "apply:begun");
        row("hands end by it", "t h", "apply:begun apply:done idle:begun");
        row("it ends nothing else", "t h t h", "apply:begun apply:done idle:begun");
        row("skip leaves out", "t h k", "apply:begun apply:done idle:begun idle:skipped soak:begun");
        row("paused, nothing passes", "t h p T", "apply:begun apply:done idle:begun idle:paused");
        row("it goes on with the step anew", "t h p T r",
            "apply:begun apply:done idle:begun idle:paused idle:begun");
        row("a measuring step from its soak", "t h k T p r",
            "apply:begun apply:done idle:begun idle:skipped soak:begun soak:done measure:begun "
            "measure:paused soak:begun");
        row("abort ends all", "t h a t t", "apply:begun apply:done idle:begun idle:aborted");
        row("aborted once", "t h a a k p", "apply:begun apply:done idle:begun idle:aborted");
        row("over from the first step without hands", "t h k o",
            "apply:begun apply:done idle:begun idle:skipped soak:begun soak:aborted idle:begun");
        row("resumed without a pause", "t h r", "apply:begun apply:done idle:begun");
    }
    void wordsOfTheUser() {
        QFETCH(QString, words);
        QFETCH(QString, reported);
        StepOccurrence hand{StepKind::apply, {}, {}, 5};
        hand.byHand = true;
        Conductor conductor({hand,
                             {StepKind::idle, {}, {}, 2},
                             {StepKind::soak, "150 W", 150, 2},
                             {StepKind::measure, "150 W", 150, 2}});
        double now = 0;
        QStringList happened;
        static const char* states[] = {"begun", "done", "timed-out", "skipped", "paused", "aborted"};
        for (const QString& one : words.split(' ')) {
            const char what = one.at(0).toLatin1();
            now += what == 'T' ? 130 : 1;
            const std::vector<StepEvent> events = what == 't' || what == 'T' ? conductor.take({now, 40, 22})
                                                  : what == 'h'              ? conductor.confirm(now)
                                                  : what == 'k'              ? conductor.skip(now)
                                                  : what == 'p'              ? conductor.pause(now)
                                                  : what == 'r'              ? conductor.resume(now)
                                                  : what == 'a'              ? conductor.abort(now)
                                                                             : conductor.startOver(now);
            for (const StepEvent& event : events)
                happened << QString("%1:%2").arg(
                    QString::fromUtf8(word(conductor.steps()[event.step].kind).data()),
                    states[static_cast<int>(event.state)]);
            if (conductor.isPaused() || conductor.finished()) QVERIFY(!conductor.wantedW());
        }
        QCOMPARE(happened.join(' '), reported);
    }
    void conditioningGoesThroughItsCycles() {
        ProtocolStep condition;
        condition.kind = StepKind::condition;
        condition.minutes = 30;
        condition.cycles = 2;
        condition.hot = Celsius{70};
        condition.cold = Celsius{40};
        const Load load = loadOf("150 W", 150);
        const auto steps = conductedSteps({condition}, {&load});
        QCOMPARE(steps.size(), std::size_t{5}); // two times up and down, then the long load
        Conductor conductor(steps);
        double chip = 30;
        std::vector<double> turned;
        for (double t = 0; t < 3'600 && !conductor.finished(); ++t) {
            const std::size_t before = conductor.place();
            conductor.take({t, chip, 22});
            if (conductor.place() != before) turned.push_back(chip);
            chip += conductor.wantedW() ? 0.5 : -0.5;
        }
        QVERIFY(conductor.finished());
        QCOMPARE(turned.size(), std::size_t{5});
        for (std::size_t i = 0; i < 4; ++i) QCOMPARE(turned[i], i % 2 == 0 ? 70.0 : 40.0);
    }
    void aGatedSoakLastsAsLongAsTheSlowestPart() {
        ProtocolStep soak;
        soak.kind = StepKind::soak;
        soak.minutes = 5;
        soak.gate = GateKind::chipBelow; // open at once
        soak.gateValue = 100;
        const Load load = loadOf("150 W", 150);
        Conductor conductor(conductedSteps({soak}, {&load}, 4));
        QVERIFY(conductor.steps().front().minutes >= 4 * 5); // 4 min × ln(200)
        double ended = 0;
        for (double t = 0; t < 3'600 && !conductor.finished(); ++t) {
            conductor.take({t, 60, 22});
            ended = t;
        }
        QCOMPARE(ended, 240.0);
    }
};

IBUKI_TEST(TestConductor)
#include "tst_conductor.moc"
