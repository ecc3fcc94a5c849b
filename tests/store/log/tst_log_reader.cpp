// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/reduce/reduce.h"
#include "store/json/reduction_json.h"
#include "store/log/log_reader.h"
#include "store/log/log_writer.h"
#include "store/log/time_stamp.h"
#include "support/near.h"
#include "support/places.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <fstream>

using namespace ibuki;

namespace {

const std::string logs = std::string(places::testData) + "/logs/";

nlohmann::json expectations() {
    std::ifstream file(logs + "expected.json");
    return nlohmann::json::parse(file);
}

ReduceSettings settingsFrom(const nlohmann::json& entry) {
    ReduceSettings settings;
    settings.metric = metricFromName(entry.value("metric", "hottest")).value();
    const auto arguments = entry.value("args", std::vector<std::string>{});
    for (std::size_t i = 0; i + 1 < arguments.size(); i += 2) {
        if (arguments[i] == "--limit") settings.limitC = std::stod(arguments[i + 1]);
        if (arguments[i] == "--nominal-power") settings.nominalPowerW = std::stod(arguments[i + 1]);
    }
    return settings;
}

} // namespace

class TestLogReader : public QObject {
    Q_OBJECT

    static std::string replaced(std::string text, char from, char to) {
        for (char& c : text)
            if (c == from) c = to;
        return text;
    }
    static QString refusal(const std::string& bytes) {
        try {
            readLog(bytes, "log.csv");
            return "read";
        } catch (const InputError& error) {
            return QString::fromStdString(error.code);
        }
    }

private slots:
    void sampleLogsComeOutAsExpected_data() {
        QTest::addColumn<int>("index");
        const auto all = expectations();
        for (std::size_t i = 0; i < all.size(); ++i) {
            // A separate probe with its own clock is not read in this version.
            if (all[i].contains("probe")) continue;
            QTest::newRow(all[i]["log"].get<std::string>().c_str()) << int(i);
        }
    }
    void sampleLogsComeOutAsExpected() {
        QFETCH(int, index);
        const auto entry = expectations()[std::size_t(index)];
        const std::string path = logs + entry["log"].get<std::string>();
        if (entry.value("unusable", false)) {
            try {
                readLogFile(path);
                QFAIL("not refused");
            } catch (const InputError& error) {
                QCOMPARE(error.where.file, path);
                QVERIFY(!QString::fromStdString(words::sentence(error)).contains('\n'));
            }
            return;
        }
        const Reduction reduction = reduce(readLogFile(path), settingsFrom(entry));
        for (const auto& flag : entry["flags"])
            QVERIFY2(hasFlag(reduction.flags, flag.get<std::string>()), flag.dump().c_str());
        if (entry.value("clean", false))
            for (const Flag& flag : reduction.flags)
                QVERIFY2(flag.severity == Severity::info, flag.code.c_str());
        if (entry.contains("load") && entry["load"].is_null()) {
            QVERIFY(!reduction.main());
            return;
        }
        const LoadReduction* load = reduction.main();
        QVERIFY(load);
        QCOMPARE(reduction.intervalS, entry["interval_s"].get<double>());
        const double reach = std::max(10.0, 2 * reduction.intervalS);
        for (const Phase& phase : load->phases)
            if (phase.name == "load") {
                QVERIFY_NEAR(phase.startS, entry["load_start_s"].get<double>(), reach);
                QVERIFY_NEAR(phase.endS, entry["load_end_s"].get<double>(), reach);
            }
        const MetricValue& value = load->metrics.at(*metricFromName(entry["metric"].get<std::string>()));
        if (entry.contains("delta_K")) {
            if (entry["delta_K"].is_null()) {
                QVERIFY(!value.deltaK && !load->rthKPerW);
            } else {
                const double tolerance = std::max(entry["delta_tolerance_K"].get<double>(), 3 * *value.seK);
                QVERIFY_NEAR(*value.deltaK, entry["delta_K"].get<double>(), tolerance);
                QVERIFY_REL(*load->rthKPerW, entry["rth_K_per_W"].get<double>(), 0.01);
            }
        }
        const auto others = entry.value("other_metrics_delta_K", nlohmann::json::object());
        for (const auto& [name, delta] : others.items())
            QVERIFY_NEAR(*load->metrics.at(*metricFromName(name)).deltaK, delta.get<double>(), 0.15);
        QVERIFY_REL(*load->powerW, entry["power_W"].get<double>(), 0.01);
        QCOMPARE(load->limit.censored, entry["limit_bound"].get<bool>());
        if (entry["steady"].is_boolean()) QCOMPARE(load->steady.reached.value(), entry["steady"].get<bool>());
        if (entry.contains("true_steady_K")) {
            const Interval& ci = *load->steady.asymptoteIntervalK;
            QVERIFY_NEAR(*load->steady.asymptoteK, entry["true_steady_K"].get<double>(),
                         std::max(entry["asymptote_tolerance_K"].get<double>(), 0.75 * (ci.hi - ci.lo)));
        }
    }
    void theResultDoesNotDependOnHowTheLogIsWritten_data() {
        QTest::addColumn<QString>("how");
        for (const char* how : {"semicolon", "tab", "decimal comma", "crlf", "bom", "utf-16", "latin-1",
                                "preamble", "quoted", "elapsed", "fahrenheit", "trailing separator"})
            QTest::newRow(how) << how;
    }
    void theResultDoesNotDependOnHowTheLogIsWritten() {
        QFETCH(QString, how);
        Trace trace = story::trace("Tern 11", 2);
        const std::string plain = logText(trace);
        std::string text = plain;
        if (how == "semicolon") text = replaced(plain, ',', ';');
        if (how == "tab") text = replaced(plain, ',', '\t');
        if (how == "decimal comma") text = replaced(replaced(plain, ',', ';'), '.', ',');
        if (how == "crlf") text = QString::fromStdString(plain).replace("\n", "\r\n").toStdString();
        if (how == "bom") text = "\xEF\xBB\xBF" + plain;
        if (how == "utf-16") {
            text = "\xFF\xFE";
            for (const QChar c : QString::fromStdString(plain))
                text += {char(c.unicode() & 0xFF), char(c.unicode() >> 8)};
        }
        if (how == "latin-1") text = QString::fromStdString(plain).toLatin1().toStdString();
        if (how == "preamble") text = "# Sensor log\n# host: node-2\n\n" + plain;
        if (how == "quoted")
            text = "\""
                   + QString::fromStdString(plain)
                         .replace(",", "\",\"")
                         .replace("\n", "\"\n\"")
                         .chopped(1)
                         .toStdString();
        if (how == "elapsed") {
            trace.start.reset();
            text = logText(trace);
        }
        if (how == "fahrenheit") {
            for (Channel& channel : trace.channels)
                if (channel.fileUnit == Unit::celsius) {
                    channel.column = QString::fromStdString(channel.column).replace("°C", "°F").toStdString();
                    for (double& v : channel.values) v = v * 1.8 + 32;
                }
            text = logText(trace);
        }
        if (how == "trailing separator")
            text = QString::fromStdString(plain).replace("\n", ",\n").toStdString();
        const Reduction there = reduce(readLog(plain, "log.csv"));
        const Reduction here = reduce(readLog(text, "log.csv"));
        const double tolerance = how == "fahrenheit" ? 0.02 : 1e-9; // one decimal of °F
        QVERIFY_NEAR(*here.main()->metrics.at(Metric::hottest).deltaK,
                     *there.main()->metrics.at(Metric::hottest).deltaK, tolerance);
        QVERIFY_NEAR(*here.main()->powerW, *there.main()->powerW, 1e-9);
        QCOMPARE(here.main()->phases, there.main()->phases);
        QCOMPARE(here.samples, there.samples);
    }
    void theOrderOfColumnsDoesNotMatter() {
        Trace trace = story::trace("Plover 4", 1);
        const Reduction there = reduce(readLog(logText(trace), "log.csv"));
        std::reverse(trace.channels.begin(), trace.channels.end());
        const Reduction here = reduce(readLog(logText(trace), "log.csv"));
        QVERIFY_NEAR(*here.main()->metrics.at(Metric::hottest).deltaK,
                     *there.main()->metrics.at(Metric::hottest).deltaK, 1e-9);
    }
    void refusesWhatCannotBeUsed_data() {
        QTest::addColumn<QByteArray>("bytes");
        QTest::addColumn<QString>("code");
        QTest::newRow("empty") << QByteArray() << "log-empty";
        QTest::newRow("blank lines") << QByteArray("\n\n  \n") << "log-empty";
        QTest::newRow("prose") << QByteArray(
            "The second technician cleaned both faces.\nNothing was logged.\n")
                               << "log-not-a-log";
        QTest::newRow("binary") << QByteArray("\x7f"
                                              "ELF\0\0\1\2\3",
                                              9)
                                << "not-text";
        QTest::newRow("header only") << QByteArray("Time [s],Core 0 [°C],Room [°C]\n") << "log-no-samples";
        QTest::newRow("no known column")
            << QByteArray("Time [s],Apples,Pears\n0,1,2\n1,2,3\n2,3,4\n") << "log-no-channels";
        QTest::newRow("no time") << QByteArray(
            "Name,Core 0 [°C],Core 1 [°C]\nabc,30,31\ndef,31,32\nghi,32,33\n")
                                 << "log-no-time";
    }
    void refusesWhatCannotBeUsed() {
        QFETCH(QByteArray, bytes);
        QFETCH(QString, code);
        QCOMPARE(refusal(bytes.toStdString()), code);
    }
    void missingFilesAndFoldersAreNamed() {
        QVERIFY_THROWS_EXCEPTION(InputError, readLogFile("/nowhere/log.csv"));
        QVERIFY_THROWS_EXCEPTION(InputError, readLogFile(places::testData));
    }
    void missingCellsAndACutOffLastLineLoseNothingElse() {
        const Trace trace =
            readLog("Time [s],Core 0 [°C],Room [°C]\n0,30,21\n1,,21\n2,32,n/a\n3,33,21\n4,3", "log.csv");
        QCOMPARE(trace.samples(), std::size_t{4});
        QVERIFY(std::isnan(trace.channels[1].values[1]));
        QVERIFY(std::isnan(trace.channels[2].values[2]));
        QCOMPARE(trace.channels[1].values[3], 33.0);
    }
    void importKeepsEveryColumn() {
        LogOptions options;
        options.allChannels = true;
        const Trace trace =
            readLog("Time [s],Core 0 [°C],Supply [V],Remark\n0,30,12.1,start\n1,31,12.0,\n2,32,11.9,end\n",
                    "log.csv", options);
        QCOMPARE(trace.channels[2].values, (std::vector<double>{12.1, 12.0, 11.9}));
        QCOMPARE(trace.channels[3].words, (std::vector<std::string>{"start", "", "end"}));
        QVERIFY(readLog("Time [s],Core 0 [°C],Supply [V]\n0,30,12.1\n1,31,12.0\n", "log.csv")
                    .channels[2]
                    .values.empty());
    }
    void rolesCanBeStated() {
        LogOptions options;
        options.roles["Thing"] = Role::core;
        options.roles["Core 0"] = Role::ignore; // without its unit
        const Trace trace =
            readLog("Time [s],Core 0 [°C],Thing [°C]\n0,30,40\n1,31,41\n2,32,42\n", "log.csv", options);
        QCOMPARE(trace.channels[1].role, Role::ignore);
        QCOMPARE(trace.channels[2].role, Role::core);
    }
    void readsStamps_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("iso");
        const std::pair<const char*, const char*> cases[] = {
            {"2031-03-04T14:02:11.250Z", "2031-03-04T14:02:11.250"},
            {"2031-03-04 14:02:11", "2031-03-04T14:02:11.000"},
            {"2031-03-04T14:02:11+01:00", "2031-03-04T14:02:11.000"},
            {"08/17/2031 11:39:02 AM", "2031-08-17T11:39:02.000"},
            {"08/17/2031 12:05:00 AM", "2031-08-17T00:05:00.000"},
            {"08/17/2031 12:31:02 PM", "2031-08-17T12:31:02.000"},
            {"17.8.2031 23:59:59,5", "2031-08-17T23:59:59.500"},
            {"2031年3月4日 14时02分11秒", "2031-03-04T14:02:11.000"},
            {"2031年3月4日14時02分", "2031-03-04T14:02:00.000"},
            {"2031/3/4 午後2:02:11", "2031-03-04T14:02:11.000"},
            {"2031-03-04 上午 09:02:11", "2031-03-04T09:02:11.000"},
            {"14/3/2031 02:02:11 p. m.", "2031-03-14T14:02:11.000"},
            {"3/14/2031, 2:02:11 PM", "2031-03-14T14:02:11.000"},
            {"4 Mar 2031 14:02:11", "2031-03-04T14:02:11.000"},
            {"04-dic.-2031 14:02:11", "2031-12-04T14:02:11.000"},
            {"4. März 2031 14:02", "2031-03-04T14:02:00.000"},
            {"3.4.31 09:07", "2031-04-03T09:07:00.000"}};
        for (const auto& [text, iso] : cases) QTest::newRow(text) << text << iso;
    }
    void readsStamps() {
        QFETCH(QString, text);
        QFETCH(QString, iso);
        const auto stamp = parseStamp(text.toStdString(), dateOrderOf(text.toStdString()));
        QVERIFY(stamp && stamp->day);
        const Instant instant{*stamp->day * 86'400'000 + std::llround(stamp->secondOfDay * 1000)};
        QCOMPARE(QString::fromStdString(isoText(instant)), iso);
    }
    void aLetterMayLieAcrossTheEndOfTheLookedAtPart() { // the encoding is told from the first 64 KiB
        for (std::size_t shift = 0; shift < 4; ++shift) {
            std::string text = "# " + std::string(shift, 'x') + "\nTime [s],Core 0 [°C],Room [°C]\n";
            for (int i = 0; text.size() < 140'000; ++i) text += std::to_string(i) + ",40 °C,21 °C\n";
            const Trace trace = readLog(text, "log.csv");
            QCOMPARE(trace.channels[1].column, std::string("Core 0 [°C]"));
            QCOMPARE(trace.channels[1].values.back(), 40.0);
        }
    }
    void refusesStampsThatAreNone() {
        for (const char* text : {"abc", "12", "2031-13-04", "2031-03-04 25:00:00", "13:00:00 PM",
                                 "2031-03-04Q", "4 Foo 2031", "14:02:", "2031年3月", "4 3 2031", ""})
            QVERIFY2(!parseStamp(text, DateOrder::yearMonthDay), text);
    }
    void fromOneColumnToTwoThousand() {
        for (const int columns : {1, 2, 200, 2'000}) {
            std::string text = "Time [s]";
            for (int i = 0; i < columns; ++i)
                text += i == columns - 1 ? ",Core 0 [°C]" : ",Rail " + std::to_string(i) + " [V]";
            for (int row = 0; row < 20; ++row) {
                text += "\n" + std::to_string(row);
                for (int i = 0; i < columns; ++i) text += "," + std::to_string(30 + row);
            }
            const Trace trace = readLog(text + "\n", "log.csv");
            QCOMPARE(trace.channels.size(), std::size_t(columns + 1));
            QCOMPARE(trace.channels.back().role, Role::core);
            QCOMPARE(trace.channels.back().values.size(), std::size_t{20});
            QCOMPARE(trace.channels.back().values.back(), 49.0);
        }
        // Readings without a time are no trace.
        QVERIFY_THROWS_EXCEPTION(InputError, readLog("Core 0 [°C]\n30\n31\n32\n", "log.csv"));
    }
    void aStopIsNoError() {
        std::stop_source source;
        source.request_stop();
        LogOptions options;
        options.stop = source.get_token();
        std::string text = "Time [s],Core 0 [°C]\n";
        for (int i = 0; i < 10'000; ++i) text += std::to_string(i) + ",30\n";
        QVERIFY_THROWS_EXCEPTION(Cancelled, readLog(text, "log.csv", options));
    }
    void reductionsSurviveTheirJson() {
        for (const char* name :
             {"plain.csv", "graphics-card.csv", "no-load.csv", "no-room.csv", "at-the-limit.csv"}) {
            const Reduction reduction = reduce(readLogFile(logs + name));
            QVERIFY2(reductionFromJson(storedJson(reduction)) == reduction, name);
        }
        QVERIFY_THROWS_EXCEPTION(InputError, reductionFromJson(nlohmann::ordered_json::object()));
    }
    void whatAnotherMetricJudgesAlikeIsStoredOnce() {
        Reduction reduction = reduceByEveryMetric(readLogFile(logs + "plain.csv"));
        QVERIFY(!reduction.others.empty());
        QCOMPARE(reduction.loads.size(), std::size_t{1});
        MetricReduction& other = reduction.others.begin()->second;
        other.loads.push_back(other.loads.front()); // more loads than the main metric has
        other.loads.front().window.reset();         // nothing where the main metric has something
        other.loads.front().foundWindow = Phase{"window", 1, 2}; // and the other way round
        other.loads.front().flags.clear();
        const auto json = storedJson(reduction);
        QVERIFY(reductionFromJson(json) == reduction);
        const auto& stored = json["by_metric"].front()["loads"];
        QVERIFY(!stored[0].contains("phases"));
        QVERIFY(stored[0].contains("window"));
        QVERIFY(stored[1].contains("phases"));
        // What is absent of the main metric is damage, not sameness.
        auto damaged = json;
        damaged["loads"][0].erase("phases");
        QVERIFY_THROWS_EXCEPTION(InputError, reductionFromJson(damaged));
    }
    void aLogWithoutATemperatureSaysSo() {
        std::string text = "Time [s],CPU Power [W],Fan [RPM]\n";
        for (int i = 0; i < 50; ++i) text += std::to_string(i) + ",100,1200\n";
        try {
            readLog(text, "fan.csv");
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("log-no-temperature"));
        }
    }
};

IBUKI_TEST(TestLogReader)
#include "tst_log_reader.moc"
