// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "support/live.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QTemporaryDir>
#include <cmath>

using namespace ibuki;
using story::put;
namespace fs = std::filesystem;

class TestSources : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int count_ = 0;
    fs::path fresh(const char* ending) {
        return folder_.filePath(QString("%1%2").arg(++count_).arg(ending)).toStdString();
    }
    static void append(const fs::path& file, const std::string& text) {
        std::ofstream(file, std::ios::binary | std::ios::app) << text;
    }
    fs::path config(unsigned short port, const char* more = "") {
        const fs::path file = fresh(".json");
        put(file,
            "{\"connect\": \"tcp:127.0.0.1:" + std::to_string(port)
                + "\", \"timeout_s\": 0.2, \"channels\": [{\"column\": \"T1\", \"query\": \"MEAS:TEMP? 1\", "
                  "\"role\": \"ambient\", \"unit\": \"degF\"}, {\"column\": \"P\", \"query\": \"MEAS:POW?\", "
                  "\"role\": \"wall-power\", \"unit\": \"W\"}]"
                + more + "}");
        return file;
    }
    std::unique_ptr<Source> instrument(unsigned short port) {
        SourceOptions options;
        options.everyS = 0.02;
        return openSource("instrument:" + config(port).string(), options);
    }

private slots:
    void theSimulatedBenchIsTheSameForTheSameSeed() {
        const fs::path bench = fresh(".json");
        put(bench, "{}");
        SourceOptions options;
        options.speed = 0;
        options.seed = 7;
        const auto readingsOf = [&] {
            const auto source = openSource("sim:" + bench.string(), options);
            const story::Running running(*source);
            running.comes([](const auto& taken) { return taken.readings().size() >= 500; });
            auto readings = running.taken.readings();
            readings.resize(500);
            return readings;
        };
        const auto first = readingsOf();
        const auto second = readingsOf();
        for (std::size_t i = 0; i < 500; ++i) {
            QCOMPARE(first[i].timeS, static_cast<double>(i));
            QCOMPARE(first[i].values, second[i].values);
        }
    }
    void simulatedTimeGoesAtItsSpeed() { // sixty times: no row comes before its time
        const fs::path bench = fresh(".json");
        put(bench, "{}");
        SourceOptions options;
        options.speed = 60;
        const auto source = openSource("sim:" + bench.string(), options);
        const double begin = steadyNowS();
        const story::Running running(*source);
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() >= 31; }));
        QVERIFY(steadyNowS() - begin >= 0.49);
    }
    void onlyNewRowsOfALogAreGiven() {
        const fs::path log = fresh(".csv");
        put(log, "Time [s],Core 0 [°C]\n0,40\n1,41\n2,42\n");
        const auto source = openSource("follow:" + log.string(), {});
        QCOMPARE(source->channels().size(), std::size_t{1});
        const story::Running running(*source);
        append(log, "3,43\n4,4");
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() == 1; }));
        append(log, "4\n");
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() == 2; }));
        QCOMPARE(running.taken.readings()[0].timeS, 3.0); // the log's own clock
        QCOMPARE(running.taken.readings()[1].values, (std::vector<double>{44}));
    }
    void aRowThatWasThereIsNotNew() { // a slow logger: one row at the opening
        const fs::path log = fresh(".csv");
        put(log, "Time [s],Core 0 [°C]\n0,40\n");
        const auto source = openSource("follow:" + log.string(), {});
        const story::Running running(*source);
        append(log, "60,41\n");
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() == 1; }));
        QCOMPARE(running.taken.readings()[0].timeS, 60.0);
    }
    void fromTheStartGivesThemAll() {
        const fs::path log = fresh(".csv");
        put(log, "Time [s],Core 0 [°C]\n0,40\n1,41\n2,42\n");
        SourceOptions options;
        options.fromStart = true;
        const auto source = openSource("follow:" + log.string(), options);
        const story::Running running(*source);
        append(log, "3,43\n");
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() == 4; }));
        QCOMPARE(running.taken.readings()[0].values, (std::vector<double>{40}));
    }
    void rotationTruncationAndDeletionAreFollowed() {
        const fs::path log = fresh(".csv");
        const std::string head = "Time [s],Core 0 [°C]\n";
        put(log, head + "0,40\n1,41\n");
        const auto source = openSource("follow:" + log.string(), {});
        const story::Running running(*source);
        const auto has = [&](std::size_t rows) {
            return running.comes([rows](const auto& taken) { return taken.readings().size() == rows; });
        };
        append(log, "2,42\n");
        QVERIFY(has(1));
        append(log, "3,43\n"); // written just before the rotation
        fs::rename(log, log.string() + ".1");
        put(log, head + "4,44\n");
        QVERIFY(has(3));
        put(log, head + "5,45\n"); // cut off and begun anew
        waitUntil({}, steadyNowS() + 0.2);
        append(log, "6,46\n");
        QVERIFY(
            running.comes([](const auto& taken) { return taken.readings().back().values.front() == 46; }));
        fs::remove(log);
        waitUntil({}, steadyNowS() + 0.2);
        put(log, head + "7,47\n");
        QVERIFY(
            running.comes([](const auto& taken) { return taken.readings().back().values.front() == 47; }));
        QCOMPARE(running.taken.bad(), std::int64_t{0});
    }
    void aLongLogIsNotReadWhole() { // its end tells where its clock stands
        const fs::path log = fresh(".csv");
        std::string text = "Time [s],Core 0 [°C],Remark\n";
        for (int i = 0; i < 120'000; ++i)
            text += std::to_string(i) + "," + std::to_string(40 + i % 7) + ",none of it\n";
        put(log, text);
        const auto source = openSource("follow:" + log.string(), {});
        const story::Running running(*source);
        append(log, "120000,48,x\n");
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() == 1; }));
        QCOMPARE(running.taken.readings()[0].timeS, 120'000.0);
    }
    void aLogThatIsNotThereIsRefused() {
        QVERIFY_THROWS_EXCEPTION(InputError, openSource("follow:/nowhere/run.csv", {}));
    }
    void anInstrumentAnswersInItsUnits() {
        const story::Instrument device([](const std::string& query) -> std::string {
            if (query == "*IDN?") return "MADE-UP,1,0,1\r\n";
            return query == "MEAS:POW?" ? "+1.25E+02\n" : "77.0\n";
        });
        const auto source = instrument(device.port());
        QCOMPARE(source->channels()[0].unit, Unit::celsius);
        const story::Running running(*source);
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() > 3; }));
        QVERIFY_NEAR(running.taken.readings()[2].values[0], 25, 1e-9); // 77 °F
        QCOMPARE(running.taken.readings()[2].values[1], 125.0);
    }
    void missingAndNonsenseAreEmpty() {
        const story::Instrument device([](const std::string& query) -> std::string {
            if (query == "*IDN?") return "X\n";
            return query == "MEAS:POW?" ? "9.91E37\n" : "ERR -113\n";
        });
        const auto source = instrument(device.port());
        const story::Running running(*source);
        QVERIFY(running.comes([](const auto& taken) { return taken.bad() > 2; }));
        for (const TimedRow& reading : running.taken.readings())
            QVERIFY(std::isnan(reading.values[0]) && std::isnan(reading.values[1]));
    }
    void aLateAnswerIsNobodysAnswer() { // the first query's comes when the second one waits
        std::atomic<int> asked = 0;
        const story::Instrument device([&asked](const std::string& query) -> std::string {
            if (query == "*IDN?") return "X\n";
            if (query == "MEAS:POW?") return "100\n";
            if (++asked % 2 == 1) waitUntil({}, steadyNowS() + 0.35);
            return "50\n";
        });
        const auto source = instrument(device.port());
        const story::Running running(*source);
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() > 8; }, 20));
        bool both = false;
        for (const TimedRow& reading : running.taken.readings()) {
            QVERIFY(std::isnan(reading.values[0]) || std::abs(reading.values[0] - 10) < 1e-9); // 50 °F
            QVERIFY(std::isnan(reading.values[1]) || reading.values[1] == 100);
            both = both || std::isfinite(reading.values[0]);
        }
        QVERIFY(both);
    }
    void floodsAndHalfLinesBlockNothing() {
        const story::Instrument device([](const std::string& query) -> std::string {
            if (query == "*IDN?") return "X\n";
            return query == "MEAS:POW?" ? std::string(200'000, 'x') : "50"; // no end
        });
        const auto source = instrument(device.port());
        const story::Running running(*source);
        QVERIFY(running.comes([](const auto& taken) { return taken.readings().size() > 3; }, 20));
        for (const TimedRow& reading : running.taken.readings())
            QVERIFY(std::isnan(reading.values[0]) && std::isnan(reading.values[1]));
    }
    void aPeerMayGoAndReturn() {
        const auto answer = [](const std::string& query) -> std::string {
            return query == "*IDN?" ? "X\n" : "50\n";
        };
        auto device = std::make_unique<story::Instrument>(answer);
        const unsigned short port = device->port();
        const auto source = instrument(port);
        const story::Running running(*source);
        const auto last = [](const story::Taken& taken) {
            const auto readings = taken.readings();
            return readings.empty() ? std::nan("") : readings.back().values[1];
        };
        QVERIFY(running.comes([&](const auto& taken) { return last(taken) == 50; }));
        device.reset();
        QVERIFY(running.comes([&](const auto& taken) { return std::isnan(last(taken)); }));
        device = std::make_unique<story::Instrument>(answer, port);
        QVERIFY(running.comes([&](const auto& taken) { return last(taken) == 50; }, 15));
    }
    void descriptionsThatCannotBeAreRefused() {
        for (const char* text :
             {"{}", "[]", "{\"connect\": \"tcp:127.0.0.1:1\", \"channels\": []}",
              "{\"connect\": \"udp:127.0.0.1:1\", \"channels\": [{\"column\": \"a\", \"query\": \"A?\"}]}",
              "{\"connect\": \"tcp:127.0.0.1:99999\", \"channels\": [{\"column\": \"a\", \"query\": "
              "\"A?\"}]}",
              "{\"connect\": \"tcp:127.0.0.1:1\", \"colour\": 1, \"channels\": [{\"column\": \"a\", "
              "\"query\": \"A?\"}]}",
              "{\"connect\": \"tcp:127.0.0.1:1\", \"channels\": [{\"column\": \"a\", \"query\": "
              "\"A?\\nB?\"}]}",
              "{\"connect\": \"tcp:127.0.0.1:1\", \"channels\": [{\"column\": \"a\", \"query\": \"A?\", "
              "\"unit\": \"furlong\"}]}",
              "{\"connect\": \"tcp:127.0.0.1:1\", \"timeout_s\": -1, \"channels\": [{\"column\": \"a\", "
              "\"query\": \"A?\"}]}",
              "{\"connect\": \"serial:/dev/nowhere:9600\", \"channels\": [{\"column\": \"a\", \"query\": "
              "\"A?\"}]}"}) {
            const fs::path file = fresh(".json");
            put(file, text);
            QVERIFY_THROWS_EXCEPTION(InputError, openSource("instrument:" + file.string(), {}));
        }
        const story::Instrument mute([](const std::string&) { return std::string(); });
        QVERIFY_THROWS_EXCEPTION(InputError, instrument(mute.port()));
    }
};

IBUKI_TEST(TestSources)
#include "tst_sources.moc"
