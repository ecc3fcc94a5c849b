// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "store/json/simulate_json.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QtTest>

using namespace ibuki;
using nlohmann::json;

class TestSimulateJson : public QObject {
    Q_OBJECT

    static QString refusal(const std::function<void()>& action) {
        try {
            action();
            return "read";
        } catch (const InputError& error) {
            return QString::fromStdString(words::sentence(error));
        }
    }

private slots:
    void absentFieldsKeepTheirDefaults() {
        const SimulatedBench bench = benchFromJson(json::object(), "b.json");
        QCOMPARE(bench.cores, SimulatedBench{}.cores);
        QCOMPARE(bench.layers.size(), SimulatedBench{}.layers.size());
        QCOMPARE(*bench.limitC, 95.0);
        QVERIFY(!protocolFromJson(json::object(), "p.json").start);
    }
    void everyFieldIsTaken() {
        const json source =
            json::parse(R"({"layers": [{"name": "die", "capacity_J_per_K": 1, "to_next_K_per_W": 0.1}],
            "interface_after_layer": 0, "interface_K_per_W": 0.02, "cores": 2, "core_spread_K": 0.5, "core_seed": 9, "hot_spot_K_per_W": 0.03,
            "sensor_lag_s": 2, "sensor_noise_K": 0.1, "sensor_step_K": 1, "room_C": 20, "room_drift_K_per_h": 1, "room_swing_K": 0.3,
            "room_swing_period_s": 600, "room_noise_K": 0.1, "room_step_K": 0.5, "room_logged": false, "idle_W": 10, "power_noise_W": 1,
            "limit_C": null, "clock_MHz": 3000, "idle_clock_MHz": 800, "fan_rpm": 900, "fan_noise_rpm": 2})");
        const SimulatedBench bench = benchFromJson(source, "b.json");
        QCOMPARE(bench.layers.size(), std::size_t{1});
        QCOMPARE(bench.layers[0].toNextKPerW, 0.1);
        QCOMPARE(bench.interfaceKPerW, 0.02);
        QCOMPARE(bench.cores, 2);
        QCOMPARE(bench.coreSeed, std::uint64_t{9});
        QVERIFY(!bench.limitC && !bench.ambientLogged);
        QCOMPARE(bench.fanRpm, 900.0);
        const SimulatedProtocol protocol = protocolFromJson(
            json::parse(
                R"({"idle_s": 1, "load_s": 2, "cooldown_s": 3, "power_W": 4, "interval_s": 5, "start": "2031-03-04T14:02:11"})"),
            "p.json");
        QCOMPARE(protocol.loadS, 2.0);
        QCOMPARE(protocol.intervalS, 5.0);
        QCOMPARE(isoText(*protocol.start), std::string("2031-03-04T14:02:11.000"));
    }
    void refusesInOneSentence() {
        QVERIFY(refusal([] {
                    benchFromJson(json::parse(R"({"wings": 2})"), "b.json");
                }).startsWith("b.json: \"wings\": there is no such field"));
        QVERIFY(refusal([] {
                    benchFromJson(json::parse(R"({"cores": "two"})"), "b.json");
                }).contains("\"cores\": \"two\" cannot be used; a whole number is due"));
        QVERIFY(refusal([] {
                    benchFromJson(json::parse(R"({"limit_C": "hot"})"), "b.json");
                }).contains("a number or null"));
        QVERIFY(refusal([] { benchFromJson(json::array(), "b.json"); }).contains("an object is due"));
        QVERIFY(refusal([] {
                    protocolFromJson(json::parse(R"({"start": "noon"})"), "p.json");
                }).contains("a time such as"));
        QVERIFY(refusal([] { readJsonFile("/nowhere/b.json"); }).contains("no such file"));
    }
};

IBUKI_TEST(TestSimulateJson)
#include "tst_simulate_json.moc"
