// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/simulate/simulated_bench.h"
#include "store/log/log_writer.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestThermalLadder : public QObject {
    Q_OBJECT

    /// The air-cooled example of docs/methods.md, "Thermal ladder".
    static std::vector<LadderNode> air() { return {{0.26, 0.057}, {7.7, 0.075}, {100, 0.045}, {540, 0.09}}; }

private slots:
    void stepResponseOfTheExample_data() {
        QTest::addColumn<double>("atS");
        QTest::addColumn<double>("rise");
        for (const auto& [at, rise] : {std::pair{1.0, 17.862}, std::pair{10.0, 25.941},
                                       std::pair{60.0, 34.207}, std::pair{300.0, 39.949}})
            QTest::addRow("%g s", at) << at << rise;
    }
    void stepResponseOfTheExample() { // 150 W, exact die rise
        QFETCH(double, atS);
        QFETCH(double, rise);
        ThermalLadder oneStep(air(), atS);
        oneStep.settle(0, 25);
        oneStep.step(150, 25);
        QVERIFY_NEAR(oneStep.chipC() - 25, rise, 6e-4);
        ThermalLadder fine(air(), 0.1);
        fine.settle(0, 25);
        for (int i = 0; i < int(std::lround(atS * 10)); ++i) fine.step(150, 25);
        QVERIFY_NEAR(fine.chipC(), oneStep.chipC(), 1e-8); // exact for any step
    }
    void settlesAtPowerTimesResistance() {
        ThermalLadder ladder(air(), 1);
        QVERIFY_NEAR(ladder.totalKPerW(), 0.267, 1e-12);
        ladder.settle(150, 25);
        QVERIFY_NEAR(ladder.chipC(), 65.05, 1e-9);
        ladder.step(150, 25);
        QVERIFY_NEAR(ladder.chipC(), 65.05, 1e-9);
    }
    void refusesImpossibleLayers() {
        QVERIFY_THROWS_EXCEPTION(InputError, ThermalLadder({}, 1));
        QVERIFY_THROWS_EXCEPTION(InputError, ThermalLadder({{0, 1}}, 1));
        QVERIFY_THROWS_EXCEPTION(InputError, ThermalLadder({{1, -1}}, 1));
        SimulatedProtocol protocol;
        protocol.intervalS = 0;
        QVERIFY_THROWS_EXCEPTION(InputError, simulate({}, protocol, 1));
    }
    void limitedRunsSettleAtTheLimit() {
        SimulatedBench bench;
        bench.limitC = 60;
        bench.sensorNoiseK = 0;
        bench.sensorStepK = 0;
        SimulatedProtocol protocol;
        protocol.loadS = 900;
        const SimulatedRun run = simulate(bench, protocol, 1);
        double highest = 0;
        for (int core = 0; core < 8; ++core)
            highest = std::max(highest, run.trace.channels[std::size_t(core)].values[1150]);
        QVERIFY_NEAR(highest, 60, 0.3);
        QVERIFY(run.limited);
    }
    void theSameSeedGivesTheSameBytes() {
        SimulatedProtocol protocol;
        protocol.loadS = 60;
        const std::string first = logText(simulate({}, protocol, 9).trace);
        QCOMPARE(logText(simulate({}, protocol, 9).trace), first);
        QVERIFY(logText(simulate({}, protocol, 10).trace) != first);
    }
};

IBUKI_TEST(TestThermalLadder)
#include "tst_thermal_ladder.moc"
