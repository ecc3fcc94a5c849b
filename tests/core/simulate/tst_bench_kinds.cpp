// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/simulated_bench.h"
#include "core/trace/trace.h"
#include "store/json/simulate_json.h"
#include "support/near.h"
#include "support/project_files.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

/// Without noise, steps, lag, offsets, limit: what physics alone says. Resistances add up to totalKPerW.
SimulatedBench silent(double totalKPerW) {
    SimulatedBench bench;
    bench.layers = {{0.26, 0.05}, {7.7, 0.05}, {100, 0.05}, {540, totalKPerW - 0.15}};
    bench.interfaceKPerW = 0;
    bench.cores = 1;
    bench.coreSpreadK = bench.hotSpotKPerW = bench.sensorLagS = bench.sensorNoiseK = bench.sensorStepK = 0;
    bench.ambientC = 25;
    bench.ambientDriftKPerH = bench.ambientSwingK = bench.ambientNoiseK = bench.ambientStepK =
        bench.powerNoiseW = 0;
    bench.fanNoiseRpm = 0;
    bench.limitC.reset();
    return bench;
}

/// What each channel reads after so many seconds of the load.
std::map<Role, double> after(const SimulatedBench& bench, double seconds, std::optional<double> loadW) {
    BenchSimulation simulation(bench, 10, 1);
    std::vector<double> values = simulation.next({});
    for (double t = 0; t < seconds; t += 10) values = simulation.next(loadW);
    std::map<Role, double> read;
    for (std::size_t i = 0; i < values.size(); ++i) read[simulation.channels()[i].role] = values[i];
    return read;
}

} // namespace

class TestBenchKinds : public QObject {
    Q_OBJECT
private slots:
    // Worked by an independent solution of T = T_room + R (P + L e^{β(T − T₀)}): docs/methods.md F.4.
    void leakageGrowsWithTheChip() {
        SimulatedBench bench = silent(0.30);
        bench.leakage = Leakage{30, 60, 0.02};
        auto read = after(bench, 7'200, 120);
        QVERIFY_NEAR(read[Role::core], 72.57, 0.02);
        QVERIFY_NEAR(read[Role::packagePower], 158.6, 0.1);
        bench.layers.back().toNextKPerW += 0.03;
        read = after(bench, 7'200, 120);
        QVERIFY_NEAR(read[Role::core], 79.11, 0.02);
        QVERIFY_NEAR(read[Role::packagePower], 164.0, 0.1);
    }
    // R = 0.10 + R_TIM + 0.02 + 0.06 n^{−0.7}, duty 0.3 + 0.7 (T − 50)/40, 150 W, 25 °C: 5 K of joint show as
    // 4.14 K (F.5).
    void anAutomaticFanHidesPartOfTheJoint() {
        SimulatedBench bench = silent(0.30);
        bench.layers[2].toNextKPerW = 0.10;
        bench.fan = SimulatedFan{50, 90, 0.3, 0.05, 0.02, 0.06, 2'000};
        const auto cool = after(bench, 7'200, 150);
        bench.interfaceKPerW = 5.0 / 150;
        const auto warm = after(bench, 7'200, 150);
        QVERIFY_NEAR(warm.at(Role::core) - cool.at(Role::core), 4.14, 0.05);
        QVERIFY_NEAR(cool.at(Role::fan) / 2'000, 0.652, 0.005);
        QVERIFY_NEAR(warm.at(Role::fan) / 2'000, 0.725, 0.005);
    }
    void filmWetsAboveItsMeltOnly() { // 10 min above: w = 1 − e^{−600/480} = 0.713 (F.6)
        SimulatedBench bench = silent(0.30);
        bench.wetting =
            SimulatedWetting{0.05, 20, 480, 0}; // melts below the room: wets from the first second
        BenchSimulation warm(bench, 1, 1);
        for (int i = 0; i <= 600; ++i) warm.next(150);
        QVERIFY_NEAR(warm.wetted(), 0.7135, 0.002);
        bench.wetting->meltC = 500;
        BenchSimulation cold(bench, 1, 1);
        for (int i = 0; i <= 600; ++i) cold.next(150);
        QCOMPARE(cold.wetted(), 0.0);
    }
    void dryOutGrowsWithTheRootOfTime() { // b = 0.05 mm²·K/W/√h: 1,000 h → 1.58, 5,000 h → 3.54 (F.6)
        SimulatedBench fresh = silent(0.30);
        fresh.interfaceKPerW = 0.1;
        SimulatedBench dry = fresh;
        dry.dryOut = SimulatedDryOut{0.0005, 5'000};
        const double grown =
            BenchSimulation(dry, 1, 1).trueDeltaK(100) - BenchSimulation(fresh, 1, 1).trueDeltaK(100);
        QVERIFY_NEAR(grown, 100 * 0.0354, 0.01);
    }
    void pumpOutCountsCycles_data() { // R₀ = 10, a = 0.5, N₀ = 250: 10.91, 12.75, 14.32, 14.91
        QTest::addColumn<double>("cycles");
        QTest::addColumn<double>("factor");
        QTest::addRow("50") << 50.0 << 1.091;
        QTest::addRow("200") << 200.0 << 1.275;
        QTest::addRow("500") << 500.0 << 1.432;
        QTest::addRow("1000") << 1000.0 << 1.491;
    }
    void pumpOutCountsCycles() {
        QFETCH(double, cycles);
        QFETCH(double, factor);
        SimulatedBench fresh = silent(0.30);
        fresh.interfaceKPerW = 0.1;
        SimulatedBench worn = fresh;
        worn.pumpOut = SimulatedPumpOut{0.5, 250, cycles};
        const double more =
            BenchSimulation(worn, 1, 1).trueDeltaK(100) - BenchSimulation(fresh, 1, 1).trueDeltaK(100);
        QVERIFY_NEAR(more, 100 * 0.1 * (factor - 1), 0.006);
    }
    void aLoopShowsItsCoolant() { // steady: the last node is P·R above the room
        SimulatedBench bench = silent(0.30);
        bench.layers.back().capacityJPerK = 1'833;
        bench.coolantLayer = 3;
        const auto read = after(bench, 7'200, 150);
        QVERIFY_NEAR(read.at(Role::coolant), 25 + 150 * 0.15, 0.02);
        const auto early = after(bench, 120, 150);
        QVERIFY(early.at(Role::coolant) < read.at(Role::coolant) - 5); // a quarter of an hour behind
    }
    void partsUnderOnePlateAndTheirHeat() {
        SimulatedBench bench = silent(0.30);
        bench.parts = {{Role::memory, "Memory [°C]", 2, 0.1, 0.4, 30},
                       {Role::vrm, "Power Stages [°C]", 2, 0.2, 0.3, 10}};
        const auto read = after(bench, 7'200, 150);
        const double plate =
            25 + 150 * 1.3 * 0.20; // node 2 stands on 0.05 + 0.15, and all heat goes through it
        QVERIFY_NEAR(read.at(Role::memory), plate + 150 * 0.1 * 0.4, 0.05);
        QVERIFY_NEAR(read.at(Role::vrm), plate + 150 * 0.2 * 0.3, 0.05);
    }
    void twoChipsOnOnePipe() {
        SimulatedBench bench = silent(0.30);
        const double alone = after(bench, 7'200, 100).at(Role::core);
        bench.neighbour = SimulatedNeighbour{60, 2, 0.1};
        const auto both = after(bench, 7'200, 100);
        QVERIFY_NEAR(both.at(Role::core) - alone, 60 * 0.20, 0.02);
        QVERIFY_NEAR(both.at(Role::gpu), 25 + 160 * 0.20 + 60 * 0.1, 0.02);
    }
    void dropoutsReadNothingForAWhile() {
        SimulatedBench bench = silent(0.30);
        bench.dropoutsPerH = 30;
        bench.dropoutS = 5;
        BenchSimulation simulation(bench, 1, 7);
        int silentSamples = 0;
        int stretches = 0;
        bool before = false;
        for (int i = 0; i < 36'000; ++i) {
            const bool nothing = std::isnan(simulation.next(150).front());
            silentSamples += nothing ? 1 : 0;
            stretches += nothing && !before ? 1 : 0;
            before = nothing;
        }
        QVERIFY2(stretches > 200 && stretches < 400, std::to_string(stretches).c_str()); // 300 ± 3 √300
        QVERIFY_NEAR(static_cast<double>(silentSamples) / stretches, 5, 0.3);
    }
    void theSameSeedGivesTheSameValuesWithAllOfIt() {
        SimulatedBench bench;
        bench.fan = SimulatedFan{};
        bench.leakage = Leakage{20, 60, 0.02};
        bench.coolantLayer = 3;
        bench.parts = {{}};
        bench.parts.front().column = "Memory [°C]";
        bench.dropoutsPerH = 60;
        bench.wetting = SimulatedWetting{};
        BenchSimulation one(bench, 1, 5);
        BenchSimulation other(bench, 1, 5);
        for (int i = 0; i < 2'000; ++i) {
            const auto a = one.next(150);
            const auto b = other.next(150);
            for (std::size_t k = 0; k < a.size(); ++k)
                QVERIFY(a[k] == b[k] || (std::isnan(a[k]) && std::isnan(b[k])));
        }
    }
    void whatCannotBeIsRefused_data() {
        QTest::addColumn<QString>("json");
        for (const char* json : {R"({"coolant_layer": 9})", R"({"wetting": {"tau_s": 0}})",
                                 R"({"automatic_fan": {"from_C": 90, "to_C": 50}})",
                                 R"({"neighbour": {"layer": 7}})", R"({"parts": [{"layer": 40}]})",
                                 R"({"leakage": {"per_K": -1}})", R"({"pump_out": {"cycles": 0}})",
                                 R"({"dry_out": {"before_h": -1}})", R"({"dropouts_per_h": -1})"})
            QTest::addRow("%s", json) << json;
    }
    void whatCannotBeIsRefused() {
        QFETCH(QString, json);
        QCOMPARE(story::codeOf([&] {
                     BenchSimulation(benchFromJson(nlohmann::json::parse(json.toStdString()), "bench.json"),
                                     1, 1);
                 }),
                 QString("simulate-values"));
    }
    void unknownFieldsInsideAreRefused() {
        for (const char* json : {R"({"leakage": {"watts": 3}})", R"({"parts": [{"role": "fan"}]})"})
            QCOMPARE(story::codeOf([&] { benchFromJson(nlohmann::json::parse(json), "bench.json"); }),
                     QString("json-field"));
    }
};

IBUKI_TEST(TestBenchKinds)
#include "tst_bench_kinds.moc"
