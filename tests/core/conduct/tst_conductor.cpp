// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/conductor.h"
#include "core/physics/simulated_bench.h"
#include "core/plan/step_times.h"
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
    std::vector<ConductedStep> steps;
    double lastS = 0;
    double leftAtSoakEndK = 0; ///< true rise that was still to come
};

Rehearsal rehearse(const SimulatedBench& bench, std::vector<ConductedStep> steps, std::uint64_t seed) {
    Rehearsal rehearsal{{}, steps, 0, 0};
    Conductor conductor(std::move(steps));
    BenchSimulation simulation(bench, 1, seed);
    SimulatedBench silent = bench; // the same without noise: what is truly left
    silent.sensorNoiseK = silent.sensorStepK = silent.coreSpreadK = 0;
    silent.roomNoiseK = silent.roomStepK = silent.roomSwingK = silent.roomDriftKPerH = 0;
    BenchSimulation truth(silent, 1, seed);
    for (int i = 0; i < 6 * 3'600 && !conductor.finished(); ++i) {
        const auto values = simulation.next(conductor.wantedW());
        const auto still = truth.next(conductor.wantedW());
        const auto wanted = conductor.wantedW();
        GateSample sample{static_cast<double>(i), {}, {}};
        sample.chipC = *std::max_element(values.begin(), values.begin() + bench.cores);
        sample.roomC = values[static_cast<std::size_t>(bench.cores) + 1];
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
        std::vector<std::string> told;
        for (const ConductedStep& step : steps)
            told.push_back(std::to_string(static_cast<int>(step.kind)) + step.load);
        using enum StepKind;
        const auto k = [](StepKind kind, const char* load) {
            return std::to_string(static_cast<int>(kind)) + load;
        };
        QCOMPARE(told, (std::vector<std::string>{k(condition, "180 W"), k(rest, ""), k(settle, ""),
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
            std::optional<double> told;
            for (int i = 0; i < 430; ++i) {
                const auto values = simulation.next(i > 0 ? std::optional(150.0) : std::nullopt);
                GateSample sample{static_cast<double>(i),
                                  *std::max_element(values.begin(), values.begin() + 8), values[9]};
                watch.take(sample);
                if (watch.reading().opensInS) told = i + *watch.reading().opensInS;
            }
            within += told && std::abs(*told - 855) < 0.2 * 855 ? 1 : 0;
        }
        QVERIFY2(within >= 16, qPrintable(QString::number(within)));
    }
};

IBUKI_TEST(TestConductor)
#include "tst_conductor.moc"
