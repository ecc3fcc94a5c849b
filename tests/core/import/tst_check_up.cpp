// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/conductor.h"
#include "core/domain/lookup.h"
#include "core/import/check_up.h"
#include "core/plan/step_times.h"
#include "core/setup/bench_template.h"
#include "core/simulate/simulated_bench.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

/// A recording that goes through the steps of the check-up.
Trace checked(const SimulatedBench& bench, std::uint64_t seed) {
    BenchSimulation simulation(bench, 1, seed);
    Conductor conductor(checkUpSteps("load", 150));
    Trace trace;
    trace.channels = simulation.channels();
    for (int i = 0; i < 4 * 3'600 && !conductor.finished(); ++i) {
        const auto values = simulation.next(conductor.wantedW());
        trace.timeS.push_back(i);
        for (std::size_t k = 0; k < values.size(); ++k) trace.channels[k].values.push_back(values[k]);
        GateSample sample{static_cast<double>(i), {}, {}};
        sample.chipC = *std::max_element(values.begin(), values.begin() + bench.cores);
        sample.ambientC = values[static_cast<std::size_t>(bench.cores) + 1];
        conductor.take(sample);
    }
    return trace;
}

SimulatedBench loop() {
    SimulatedBench bench;
    bench.layers = {{0.26, 0.057}, {7.7, 0.060}, {115, 0.035}, {1'833, 0.10}};
    return bench;
}

} // namespace

class TestCheckUp : public QObject {
    Q_OBJECT
private slots:
    void timeConstantsOfAirAndLoop_data() { // of the ladder's slowest eigenvalue, joint included
        QTest::addColumn<bool>("isLoop");
        QTest::addColumn<int>("seed");
        for (int seed = 1; seed <= 5; ++seed) {
            QTest::addRow("air %d", seed) << false << seed;
            QTest::addRow("loop %d", seed) << true << seed;
        }
    }
    void timeConstantsOfAirAndLoop() {
        QFETCH(bool, isLoop);
        QFETCH(int, seed);
        const SimulatedBench bench = isLoop ? loop() : SimulatedBench{};
        auto layers = bench.layers;
        layers[bench.interfaceAfter].toNextKPerW += bench.interfaceKPerW;
        const double truth = ThermalLadder(layers, 1).slowestS();
        const CheckUp found = checkUpOf(checked(bench, static_cast<std::uint64_t>(seed)));
        QVERIFY(found.slowestMinutes.has_value());
        QVERIFY_REL(60 * *found.slowestMinutes, truth, 0.15);
    }
    void noiseStepAndOffsetsOfTheCores() {
        SimulatedBench bench;
        bench.sensorNoiseK = 0.4;
        bench.sensorStepK = 0.25;
        bench.coreSpreadK = 1.5;
        const Trace trace = checked(bench, 3);
        const CheckUp found = checkUpOf(trace);
        // The offsets that the simulation drew, from a bench without noise.
        SimulatedBench silent = bench;
        silent.sensorNoiseK = silent.sensorStepK = 0;
        const auto truth = BenchSimulation(silent, 1, 3).next({});
        double mean = 0;
        for (int i = 0; i < bench.cores; ++i) mean += truth[static_cast<std::size_t>(i)] / bench.cores;
        int cores = 0;
        for (const CheckedChannel& channel : found.channels) {
            if (channel.role != Role::core) continue;
            ++cores;
            QVERIFY_NEAR(*channel.resolutionK, 0.25, 1e-9);
            QVERIFY_NEAR(*channel.noiseK, std::sqrt(0.16 + 0.0625 / 12),
                         0.08); // with rounding; 180 samples: ± 6 %
            QVERIFY_NEAR(*channel.offsetK, truth[static_cast<std::size_t>(channel.index)] - mean, 0.15);
        }
        QCOMPARE(cores, bench.cores);
    }
    void twoRoomProbesTellAGradient() {
        Trace trace = checked({}, 1);
        Channel second = *firstChannel(trace, Role::ambient);
        second.index = 1;
        second.column = "Room 2 [°C]";
        for (double& value : second.values) value += 0.8;
        trace.channels.push_back(second);
        QVERIFY_NEAR(*checkUpOf(trace).ambientGradientK, 0.4, 1e-9);
    }
    void whatCannotBeToldIsSaid() {
        Trace trace = checked({}, 1);
        for (Channel& channel : trace.channels) channel.values.resize(250); // the idle stretch alone
        trace.timeS.resize(250);
        const CheckUp found = checkUpOf(trace);
        QVERIFY(!found.slowestMinutes);
        QCOMPARE(found.doubts.front().code, std::string("check-no-load"));
        QVERIFY(checkUpOf(Trace{}).channels.empty());
    }
    void theBenchKeepsItAndPlanAndRunUseIt() {
        Document document;
        Edit make(document, "bench");
        const Id<Bench> bench = addBench(make, BenchTemplate::liddedChip, "node-2");
        apply(document, make.finish());
        const CheckUp found = checkUpOf(checked(loop(), 2));
        Edit edit(document, "check-up");
        putCheckUp(edit, bench, found);
        apply(document, edit.finish());
        const Configuration& stored = *currentConfiguration(document, bench);
        QCOMPARE(stored.slowestMinutes, found.slowestMinutes);
        int withNoise = 0;
        for (const Sensor* sensor : document.where(&Sensor::configuration, stored.id))
            withNoise += sensor->noise ? 1 : 0;
        QCOMPARE(withNoise, static_cast<int>(found.channels.size()));
        // Once more: the same sensors, not new ones.
        const auto sensors = document.where(&Sensor::configuration, stored.id).size();
        Edit again(document, "check-up");
        putCheckUp(again, bench, found);
        apply(document, again.finish());
        QCOMPARE(document.where(&Sensor::configuration, stored.id).size(), sensors);
    }
};

IBUKI_TEST(TestCheckUp)
#include "tst_check_up.moc"
