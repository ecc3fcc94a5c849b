// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/nan.h"
#include "core/base/random.h"
#include "store/log/followed_log.h"
#include "store/log/log_reader.h"
#include "support/near.h"
#include "support/places.h"
#include "support/test_class.h"

#include <cmath>
#include <fstream>
#include <iterator>

using namespace ibuki;

namespace {

std::string bytesOf(const std::string& name) {
    std::ifstream file(std::string(places::testData) + "/logs/" + name, std::ios::binary);
    return {std::istreambuf_iterator<char>(file), {}};
}

/// Fed in pieces of random length, so that lines and characters are torn apart.
std::vector<TimedRow> inPieces(FollowedLog& log, std::string_view bytes, std::uint64_t seed, double longest) {
    Random random(seed);
    std::vector<TimedRow> rows;
    while (!bytes.empty()) {
        const auto length = std::min(bytes.size(), 1 + static_cast<std::size_t>(longest * random.uniform()));
        log.feed(bytes.substr(0, length));
        bytes.remove_prefix(length);
        for (TimedRow& row : log.take()) rows.push_back(std::move(row));
    }
    return rows;
}

} // namespace

class TestFollowedLog : public QObject {
    Q_OBJECT
private slots:
    void aGrowingLogIsTheSameAsAFinishedOne_data() {
        QTest::addColumn<QString>("name");
        for (const char* name : {"plain.csv", "no-room.csv", "semicolon.csv", "probe-room.csv"})
            if (!bytesOf(name).empty()) QTest::addRow("%s", name) << name;
    }
    void aGrowingLogIsTheSameAsAFinishedOne() {
        QFETCH(QString, name);
        const std::string bytes = bytesOf(name.toStdString());
        LogOptions options;
        options.allChannels = true;
        const Trace whole = readLog(bytes, name.toStdString(), options);
        FollowedLog log(name.toStdString());
        const auto rows = inPieces(log, bytes, 7, 700);
        QCOMPARE(rows.size(), whole.samples());
        for (std::size_t i = 0; i < rows.size(); i += 17) QVERIFY_NEAR(rows[i].timeS, whole.timeS[i], 1e-6);
        for (std::size_t k = 0; k < log.channels().size(); ++k)
            for (const Channel& channel : whole.channels)
                if (channel.column == log.channels()[k].column && !channel.values.empty()) {
                    QCOMPARE(log.channels()[k].role, channel.role);
                    for (std::size_t i = 0; i < rows.size(); i += 13)
                        QVERIFY(rows[i].values[k] == channel.values[i]
                                || (std::isnan(rows[i].values[k]) && std::isnan(channel.values[i])));
                }
        QCOMPARE(log.start(), whole.start);
    }
    void halfLinesAndALateHeaderWait() {
        FollowedLog log("live.csv");
        log.feed("some words of the logger\n");
        QVERIFY(log.channels().empty() && log.take().empty());
        log.feed("Time [s],Core 0 [°C],Roo");
        log.feed("m [°C]\n0,40.5,21\n");
        log.feed("1,41,21.5\n2,4");
        QCOMPARE(log.channels().size(), std::size_t{2});
        QCOMPARE(log.take().size(), std::size_t{2});
        log.feed("2.25,22\n");
        const auto rows = log.take();
        QCOMPARE(rows.size(), std::size_t{1});
        QCOMPARE(rows[0].timeS, 2.0);
        QCOMPARE(rows[0].values, (std::vector<double>{42.25, 22}));
    }
    void aRestartGoesOn() {
        FollowedLog log("live.csv");
        log.feed("Time [s],Core 0 [°C]\n0,40\n1,41\n2,42\n");
        QCOMPARE(log.take().size(), std::size_t{3});
        log.feed("3,4"); // was not finished when the file was cut off
        log.restart();
        log.feed("Time [s],Core 0 [°C]\n0,50\n1,51\n");
        const auto rows = log.take();
        QCOMPARE(rows.size(), std::size_t{2});
        QCOMPARE(rows[0].timeS, 3.0); // its own clock began anew
        QCOMPARE(rows[1].timeS, 4.0);
        QCOMPARE(rows[1].values.front(), 51.0);
        QCOMPARE(log.badRows(), std::int64_t{0});
    }
    void midnightWithoutADateIsTheNextDay() {
        FollowedLog log("live.csv");
        log.feed("Clock,Core 0 [°C]\n23:59:58,40\n23:59:59,41\n00:00:00,42\n00:00:01,43\n");
        const auto rows = log.take();
        QCOMPARE(rows.size(), std::size_t{4});
        for (std::size_t i = 0; i < rows.size(); ++i) QCOMPARE(rows[i].timeS, static_cast<double>(i));
    }
    void aClockThatIsSetBackStandsStill() {
        FollowedLog log("live.csv");
        log.feed(
            "Time,Core 0 [°C]\n2031-03-04 18:00:00,40\n2031-03-04 18:00:05,41\n2031-03-04 17:00:00,42\n");
        const auto rows = log.take();
        QCOMPARE(rows.size(), std::size_t{3});
        QCOMPARE(rows[2].timeS, 5.0);
        QCOMPARE(log.start(), parseInstant("2031-03-04 18:00:00"));
    }
    void nonsenseIsCountedAndLosesNothing() {
        FollowedLog log("live.csv");
        log.feed("Time [s],Core 0 [°C],Room [°C]\n0,40,21\n1,41,21\n");
        log.take();
        log.feed("\n\xff\xfe garbage\nfoo,bar,baz\n2,42,21\n3,n/a,21\n");
        const auto rows = log.take();
        QCOMPARE(rows.size(), std::size_t{2});
        QVERIFY(std::isnan(rows[1].values[0])); // never the last value
        QVERIFY(log.badRows() >= 1);
    }
    void otherEncodingsAndJsonLines() {
        const std::string text = "Time [s],Core 0 [C]\n0,40\n1,41\n2,42\n";
        std::string wide = "\xff\xfe";
        for (char c : text) wide += {c, '\0'};
        FollowedLog log("wide.csv");
        QCOMPARE(inPieces(log, wide, 3, 9).size(), std::size_t{3});
        FollowedLog json("live.jsonl");
        const auto rows = inPieces(json,
                                   "{\"t\": 0, \"core 0 temp\": 40.5}\n{\"t\": 1, \"core 0 temp\": 41}\n"
                                   "{\"t\": 2, \"core 0 temp\": 42}\n{\"t\": 3, \"core 0 temp\": 43}\n",
                                   5, 20);
        QCOMPARE(rows.size(), std::size_t{4});
        QCOMPARE(rows[3].timeS, 3.0);
        QCOMPARE(rows[3].values.front(), 43.0);
    }
};

IBUKI_TEST(TestFollowedLog)
#include "tst_followed_log.moc"
