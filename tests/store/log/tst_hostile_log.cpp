// SPDX-License-Identifier: GPL-3.0-or-later
// Logs and JSON that are damaged, cut off while they are read, or made to harm.

#include "core/base/input_error.h"
#include "core/base/utf8.h"
#include "core/reduce/reduce.h"
#include "store/json/json_limits.h"
#include "store/json/reduction_json.h"
#include "store/json/simulate_json.h"
#include "store/log/log_reader.h"
#include "store/log/mapped_file.h"
#include "store/table/table.h"
#include "support/peak.h"
#include "support/project_files.h"
#include "support/test_class.h"

#include <QElapsedTimer>
#include <QTemporaryDir>
#include <QtTest>
#include <fmt/format.h>
#include <fstream>
#include <sys/stat.h>
#include <unistd.h>

using namespace ibuki;
using story::peakMB;

namespace {

/// A load with its idle, a sample a second.
std::string typicalLog(const std::string& header = "Time [s],Core 0 [°C],CPU Power [W],Room [°C]",
                       int rows = 600) {
    std::string text = header + "\n";
    for (int i = 0; i < rows; ++i)
        text +=
            fmt::format("{},{:.1f},{},22.0\n", i, i < 100 ? 30.0 : 60.0 + (i % 3) * 0.1, i < 100 ? 10 : 120);
    return text;
}

} // namespace

class TestHostileLog : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::string file(const char* name, const std::string& text = {}) {
        const std::string path = folder_.filePath(name).toStdString();
        if (!text.empty()) std::ofstream(path, std::ios::binary) << text;
        return path;
    }
    static QString jsonOf(const std::string& log) {
        return QString::fromStdString(toJson(reduceByEveryMetric(readLog(log, "log.csv"))).dump());
    }

private slots:
    void badTextAnywhereStillMakesJson_data() {
        QTest::addColumn<QByteArray>("bytes");
        for (const char* bytes : {"C0AF", "EDA080", "F5808080", "FF", "80", "E282", "F4908080"})
            QTest::newRow(bytes) << QByteArray::fromHex(bytes);
    }
    void badTextAnywhereStillMakesJson() {
        QFETCH(QByteArray, bytes);
        const std::string bad = bytes.toStdString();
        QVERIFY(jsonOf(typicalLog("Time [s],Core 0 " + bad + ",CPU Power [W],Room [°C]")).contains("Core 0"));
        std::string late = typicalLog(); // behind the first 64 KB
        late = typicalLog("Time [s],Core 0 [°C],CPU Power [W],Room [°C]", 6'000);
        late += "6000,61,120," + bad + "\n6001,61,120,22.0\n";
        LogOptions all;
        all.allChannels = true;
        const LogReading reading = readLogReported(late, "log.csv", all);
        for (const Channel& channel : reading.trace.channels)
            for (const std::string& word : channel.words) QVERIFY(isUtf8(word));
        QVERIFY(!jsonOf(late).isEmpty());
        QVERIFY(story::codeOf([&] { readLog(bad, bad + ".csv"); }).size() > 3);
    }
    void halfAPairOfUtf16IsNoLetter() {
        std::string wide = "\xff\xfe";
        for (char c : typicalLog("Time [s],Core 0 X [C],CPU Power [W],Room [C]")) {
            if (c == 'X')
                wide += std::string("\x00\xd8", 2);
            else
                wide += std::string{c, '\0'};
        }
        for (const Channel& channel : readLog(wide, "log.csv").channels) QVERIFY(isUtf8(channel.column));
    }

    void timesThatCannotBeAreBadRows_data() {
        QTest::addColumn<QString>("time");
        for (const char* time :
             {"1e308", "-1e308", "inf", "-inf", "nan", "1e18", "-4e12", "9999999999999999999"})
            QTest::newRow(time) << time;
    }
    void timesThatCannotBeAreBadRows() {
        QFETCH(QString, time);
        for (int at : {0, 300, 599}) {
            std::string text = "Time [s],Core 0 [°C],CPU Power [W],Room [°C]\n";
            for (int i = 0; i < 600; ++i)
                text += (i == at ? time.toStdString() : std::to_string(i))
                        + fmt::format(",{},{},22\n", i < 100 ? 30 : 60, i < 100 ? 10 : 120);
            const Trace trace = readLog(text, "log.csv");
            QVERIFY(trace.samples() >= 598 && trace.samples() <= 600);
            QVERIFY(trace.timeS.back() < 1'000);
            const Reduction reduction = reduceByEveryMetric(trace);
            QVERIFY(reduction.main());
        }
    }
    void aPipeOrADeviceIsNoLog() {
        const std::string pipe = file("pipe");
        QVERIFY(::mkfifo(pipe.c_str(), 0600) == 0);
        QElapsedTimer clock;
        clock.start();
        for (const std::string& path : {pipe, std::string("/dev/zero"), std::string("/dev/null")})
            QCOMPARE(story::codeOf([&] { readLogFile(path); }), "file-unreadable");
        QVERIFY2(clock.elapsed() < 60'000, "it waited for a writer");
    }
    void aLogCutOffWhileItIsReadIsTold() {
        const std::string path =
            file("growing.csv", typicalLog("Time [s],Core 0 [°C],CPU Power [W],Room [°C]", 40'000));
        const MappedFile mapped(path);
        mapped.requireWhole();
        QVERIFY(::truncate(path.c_str(), 4'096) == 0);
        std::size_t zeros = 0;
        for (char c : mapped.bytes()) zeros += c == '\0' ? 1 : 0; // ended the process before
        QVERIFY(zeros > 100'000);
        QCOMPARE(story::codeOf([&] { mapped.requireWhole(); }), "file-shrank");
        const MappedFile other(file("other.csv", typicalLog()));
        other.requireWhole(); // nothing is wrong with that one
    }
    void moreColumnsThanAnybodyWritesAreRefused() {
        std::string header = "Time [s]";
        std::string row = "0";
        for (int i = 0; i < 100'000; ++i) {
            header += ",c" + std::to_string(i);
            row += ",1";
        }
        const long before = peakMB();
        QCOMPARE(story::codeOf([&] { readLog(header + "\n" + row + "\n" + row + "\n", "wide.csv"); }),
                 "log-columns");
        const std::string commas =
            typicalLog() + std::string(20'000'000, ',') + "\n" + "\"" + std::string(20'000'000, ',');
        QCOMPARE(readLog(commas, "commas.csv").samples(), std::size_t{600});
        QVERIFY2(peakMB() - before < 900, qPrintable(QString::number(peakMB() - before)));
    }
    void linesWithoutATimeCostNoMoreForManyColumns() {
        std::string header = "Time [s],Core 0 [°C]";
        for (int i = 0; i < 1'500; ++i) header += ",v" + std::to_string(i);
        std::string words = "closed";
        for (int i = 0; i < 1'501; ++i) words += ",v" + std::to_string(1'500 - i);
        std::string text = header + "\n";
        for (int i = 0; i < 300; ++i) {
            text += std::to_string(i) + ",50";
            for (int k = 0; k < 1'500; ++k) text += ",1";
            text += "\n" + words + "\n" + words + "\n";
        }
        QCOMPARE(readLog(text, "footers.csv").samples(), std::size_t{300});
    }

    void twoThousandLoadsAreReduced() { // 31 s once
        std::string text = "Time [s],Core 0 [C],CPU Power [W],Room [C]\n";
        for (int i = 0; i < 2000 * 150; ++i)
            text += fmt::format("{},{:.1f},{},22.0\n", i, i % 150 < 70 ? 30.0 : 55.0 + (i % 3) * 0.1,
                                i % 150 < 70 ? 12 : 120);
        QCOMPARE(reduce(readLog(text, "loads.csv"), {}).loads.size(), std::size_t{2000});
    }
    void anOpenQuoteTakesTheRestOfATable() {
        std::string text = "material,mount,delta_K\nTern 11,\"1,20\n";
        for (int i = 0; i < 200000; ++i) text += "Tern 11,2,21\n";
        QCOMPARE(story::codeOf([&] { readTable(text, "t.csv"); }), "table-short-row");
        std::string wide = "a0";
        for (int i = 1; i < 15000; ++i) wide += ",a" + std::to_string(i);
        QCOMPARE(readTable(wide + "\n" + wide + "\n", "t.csv").columns().size(), std::size_t{15000});
    }
    void deepAndWideJsonIsRefused() {
        QVERIFY(isSoundJson("{\"a\": [1, 2.5, \"x\", null, true, {\"b\": {}}]}"));
        QVERIFY(!isSoundJson(std::string(100'000, '[')));
        QVERIFY(!isSoundJson(std::string(1'000, '[') + std::string(1'000, ']')));
        QVERIFY(!isSoundJson("{\"a\": 1e999}"));
        QVERIFY(!isSoundJson("{\"a\": }"));
        QVERIFY(!isSoundJson(""));
        std::string wide = "{";
        for (int i = 0; i < 30'000; ++i) wide += fmt::format("{}\"k{}\": 1", i ? "," : "", i);
        QVERIFY(!isSoundJson(wide + "}"));
        QVERIFY(!soundJson(wide + "}") && !soundJson(std::string(1'000, '[') + std::string(1'000, ']')));
        QVERIFY(!soundJson("{\"a\": 1e999}") && !soundJson("{\"a\": }"));
        QCOMPARE((*soundJson("{\"a\": [1, \"x::[[[\"]}"))["a"][1].get<std::string>(), std::string("x::[[["));
        QVERIFY(soundJson("\"" + std::string(50'000, ':') + "\"").has_value()); // colons inside a text
        QCOMPARE(story::codeOf([&] {
                     readJsonFile(file("deep.json", std::string(5'000, '[') + std::string(5'000, ']')));
                 }),
                 "json-syntax");
        QCOMPARE(story::codeOf([&] { readJsonFile(file("inf.json", "{\"a\": 1e999}")); }), "json-syntax");
    }
    void jsonLinesMayBeDeepOrWide() {
        std::string good;
        for (int i = 0; i < 200; ++i)
            good += fmt::format(R"({{"time": {}, "core": {{"0": 50.5}}, "power": 100}})", i) + "\n";
        QCOMPARE(readLog(good, "a.jsonl").samples(), std::size_t{200});
        const long before = peakMB();
        const std::string deep =
            good + "{\"a\":" + std::string(3'000'000, '[') + std::string(3'000'000, ']') + "}\n";
        QCOMPARE(readLog(deep, "b.jsonl").samples(), std::size_t{200});
        std::string wide = good + "{\"time\": 300";
        for (int i = 0; i < 200'000; ++i) wide += ",\"core 0\": 1";
        QVERIFY(readLog(wide + "}\n", "c.jsonl").samples() >= 200); // one name, over and over
        QVERIFY2(peakMB() - before < 500, qPrintable(QString::number(peakMB() - before)));
    }
};

IBUKI_TEST(TestHostileLog)
#include "tst_hostile_log.moc"
