// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project/project.h"
#include "support/command.h"
#include "support/near.h"
#include "support/places.h"
#include "support/test_class.h"

#include <QProcess>
#include <QTemporaryDir>
#include <fstream>
#include <nlohmann/json.hpp>

using namespace ibuki;
using nlohmann::json;
using story::Outcome;
using story::run;

namespace {
const std::string logs = std::string(places::testData) + "/logs/";
}

class TestCli : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::string file(const char* name) const { return folder_.filePath(name).toStdString(); }
    std::string write(const char* name, const std::string& text) const {
        std::ofstream(file(name), std::ios::binary) << text;
        return file(name);
    }

private slots:
    void reducePrintsOneJsonObject() {
        const Outcome done = run({"reduce", logs + "plain.csv", "--nominal-power", "180", "--json"});
        QCOMPARE(done.code, 0);
        const json j = json::parse(done.out);
        for (const char* field :
             {"samples", "duration_s", "interval_s", "channels", "phases", "window", "steady", "ambient",
              "metrics", "idle", "power_W", "rth_K_per_W", "delta_at_nominal_K", "limit", "loads", "flags"})
            QVERIFY2(j.contains(field), field);
        QVERIFY_NEAR(j["delta_at_nominal_K"].get<double>(), j["rth_K_per_W"].get<double>() * 180, 1e-9);
        QCOMPARE(j["loads"].size(), std::size_t{1});
        QCOMPARE(j["channels"][1]["role"].get<std::string>(), std::string("core"));
        QVERIFY(j["idle"]["metrics"].contains("hottest"));
    }
    void whatDoesNotExistIsNull() {
        const json j = json::parse(run({"reduce", logs + "no-load.csv", "--json"}).out);
        for (const char* field : {"window", "metrics", "power_W", "rth_K_per_W"})
            QVERIFY2(j[field].is_null(), field);
        const json room = json::parse(run({"reduce", logs + "no-room.csv", "--json"}).out);
        QVERIFY(room["metrics"]["hottest"]["delta_K"].is_null());
        QVERIFY(room["ambient"]["source"].is_null());
        const json entered =
            json::parse(run({"reduce", logs + "no-room.csv", "--ambient", "22±0.3", "--json"}).out);
        QCOMPARE(entered["ambient"]["source"].get<std::string>(), std::string("entered"));
        QVERIFY(entered["metrics"]["hottest"]["delta_K"].is_number());
    }
    void rolesCanBeMapped() {
        const std::string map = write("map.json", R"({"Package": "ignore", "Ambient [°C]": "coolant"})");
        const json j = json::parse(run({"reduce", logs + "plain.csv", "--channels", map, "--json"}).out);
        QVERIFY(j["metrics"].contains("coolant"));
        QVERIFY(!j["metrics"].contains("package"));
    }
    void compareFollowsTheContract() {
        const std::string table =
            write("ds.csv", "material,mount,delta_K,excluded\nA,1,24.7,false\nA,2,24.3,false\nB,1,25.8,"
                            "false\nB,2,25.2,false\nB,3,99,true\nC,1,30,false\nC,2,30.2,false\n");
        const Outcome done = run({"compare", table, "--json"});
        QCOMPARE(done.code, 0);
        const json j = json::parse(done.out);
        for (const char* field :
             {"groups", "anova", "welch", "brown_forsythe", "variance", "pairs", "tiers", "flags"})
            QVERIFY2(j.contains(field), field);
        QCOMPARE(j["groups"].size(), std::size_t{3});
        QCOMPARE(j["groups"][1]["mounts"].get<int>(), 2); // the excluded row is left out
        for (const char* field : {"a", "b", "difference_K", "se_K", "df", "ci_K", "p_adjusted", "adjustment",
                                  "equivalence_p", "verdict", "size", "settleable", "further_mounts"})
            QVERIFY2(j["pairs"][0].contains(field), field);
        QVERIFY(j["variance"].is_null());
        QCOMPARE(j["tiers"][0][0].get<std::string>(), std::string("A"));
    }
    void compareSelectsRowsAndValues() {
        const std::string table = write("sel.csv", "lab,m,rth,load\nA,1,0.20,x\nA,2,0.21,x\nB,1,0.30,x\nB,2,"
                                                   "0.31,x\nA,1,9,y\nA,2,9.1,y\nB,1,9,y\nB,2,9.2,y\n");
        const Outcome mixed =
            run({"compare", table, "--group", "lab", "--mount", "m", "--value", "rth", "--margin", "0.01"});
        QCOMPARE(mixed.code, 1); // loads differ inside a mount
        const Outcome done = run({"compare", table, "--group", "lab", "--mount", "m", "--value", "rth",
                                  "--margin", "0.01", "--where", "load=x", "--better", "higher", "--json"});
        QCOMPARE(done.code, 0);
        QCOMPARE(json::parse(done.out)["tiers"][0][0].get<std::string>(), std::string("B"));
        QCOMPARE(
            run({"compare", table, "--group", "lab", "--mount", "m", "--value", "rth", "--where", "load=x"})
                .code,
            2); // margin due
    }
    void simulateIsReproducibleAndReadsBack() {
        const std::string bench = write("bench.json", R"({"interface_K_per_W": 0.02, "cores": 4})");
        const std::string protocol =
            write("protocol.json", R"({"load_s": 600, "interval_s": 2, "start": "2031-03-04T10:00:00"})");
        QCOMPARE(
            run({"simulate", "--bench", bench, "--protocol", protocol, "--seed", "7", "-o", file("a.csv")})
                .code,
            0);
        QCOMPARE(
            run({"simulate", "--bench", bench, "--protocol", protocol, "--seed", "7", "-o", file("b.csv")})
                .code,
            0);
        std::ifstream a(file("a.csv"));
        std::ifstream b(file("b.csv"));
        QCOMPARE(std::string(std::istreambuf_iterator<char>(a), {}),
                 std::string(std::istreambuf_iterator<char>(b), {}));
        QCOMPARE(run({"reduce", file("a.csv")}).code, 0);
        const std::string bad = write("bad.json", "{\n\"cores\": 4,\n\"wings\": 2}");
        const Outcome refused =
            run({"simulate", "--bench", bad, "--protocol", protocol, "-o", file("c.csv")});
        QCOMPARE(refused.code, 1);
        QVERIFY(refused.err.find("wings") != std::string::npos);
        const Outcome syntax = run({"simulate", "--bench", write("bad2.json", "{\n\"cores\": \n}"),
                                    "--protocol", protocol, "-o", file("c.csv")});
        QVERIFY(syntax.err.find("line 3") != std::string::npos);
    }
    void reportWritesEveryKind() {
        for (const char* ending : {".html", ".csv", ".json"}) {
            const std::string target = file("r") + ending;
            const Outcome done = run({"report", places::sampleProject, "-o", target});
            QVERIFY2(done.code == 0, done.err.c_str());
            QVERIFY(QFileInfo(QString::fromStdString(target)).size() > 1000);
        }
        // The window and the command give the same numbers: the table compares to what the report says.
        const json report = [&] {
            std::ifstream stream(file("r") + ".json");
            return json::parse(stream);
        }();
        const json compared = json::parse(
            run({"compare", file("r") + ".csv", "--group", "level", "--where", "purpose=fresh", "--json"})
                .out);
        QCOMPARE(compared["anova"], report["comparison"]["anova"]);
    }
    void wrongUsageIsTwo_data() {
        QTest::addColumn<QStringList>("arguments");
        const QString plain = QString::fromStdString(logs) + "plain.csv";
        QTest::newRow("nothing") << QStringList{};
        QTest::newRow("unknown subcommand") << QStringList{"brew"};
        QTest::newRow("unknown option") << QStringList{"reduce", plain, "--loud"};
        QTest::newRow("unknown metric") << QStringList{"reduce", plain, "--metric", "coolest"};
        QTest::newRow("no number") << QStringList{"reduce", plain, "--limit", "hot"};
        QTest::newRow("bad ambient") << QStringList{"reduce", plain, "--ambient", "warm"};
        QTest::newRow("bad method") << QStringList{"compare", plain, "--method", "guess"};
        QTest::newRow("bad ending") << QStringList{"report", "x.ibuki", "-o", "x.doc"};
        QTest::newRow("unknown study")
            << QStringList{"report", places::sampleProject, "--study", "none", "-o", "/tmp/ibuki-none.csv"};
    }
    void wrongUsageIsTwo() {
        QFETCH(QStringList, arguments);
        std::vector<std::string> words;
        for (const QString& word : arguments) words.push_back(word.toStdString());
        const Outcome outcome = run(words);
        QCOMPARE(outcome.code, 2);
        QVERIFY(!outcome.err.empty() && outcome.out.empty());
    }
    void aRoomProbeWithItsOwnClockIsLaidBeside() {
        const Outcome outcome =
            run({"reduce", logs + "probe.csv", "--probe", logs + "probe-room.csv", "--json"});
        QCOMPARE(outcome.code, 0);
        const auto found = nlohmann::json::parse(outcome.out);
        QCOMPARE(found["ambient"]["source"].get<std::string>(), std::string("probe"));
        QVERIFY(std::abs(found["ambient"]["probe_shift_s"].get<double>() - 37) < 60);
        QVERIFY(found["ambient"]["probe_shift_u_s"].get<double>() > 0);
        QVERIFY(std::abs(found["metrics"]["hottest"]["delta_K"].get<double>() - 42.82) < 0.15);
        const Outcome stated = run({"reduce", logs + "probe.csv", "--probe", logs + "probe-room.csv",
                                    "--probe-shift", "37", "--json"});
        QCOMPARE(nlohmann::json::parse(stated.out)["ambient"]["probe_shift_s"].get<double>(), 37.0);
        QCOMPARE(run({"reduce", logs + "probe.csv", "--probe", logs + "prose.txt"}).code, 1);
    }
    void unusableInputIsOneLineThatNamesTheFile() {
        for (const auto& arguments :
             std::vector<std::vector<std::string>>{{"reduce", logs + "prose.txt"},
                                                   {"reduce", logs + "empty.csv"},
                                                   {"reduce", file("missing.csv")},
                                                   {"compare", logs + "empty.csv"},
                                                   {"report", logs + "prose.txt", "-o", file("x.csv")}}) {
            const Outcome outcome = run(arguments);
            QCOMPARE(outcome.code, 1);
            QCOMPARE(std::count(outcome.err.begin(), outcome.err.end(), '\n'), 1);
            QVERIFY2(outcome.err.find(arguments[1]) != std::string::npos, outcome.err.c_str());
        }
    }
    void helpGoesToStandardOutputWithAnExample() {
        for (const char* verb : {"reduce", "compare", "simulate", "report"}) {
            const Outcome outcome = run({verb, "-h"});
            QCOMPARE(outcome.code, 0);
            QVERIFY(outcome.out.find(std::string("\nibuki-cli ") + verb) != std::string::npos);
            QVERIFY(outcome.err.empty());
        }
    }
    void theBinaryAnswersAlike() {
        QProcess process;
        process.start(places::command, {"reduce", QString::fromStdString(logs) + "plain.csv", "--json"});
        QVERIFY(process.waitForFinished());
        QCOMPARE(process.exitCode(), 0);
        QCOMPARE(process.readAllStandardOutput().toStdString(),
                 run({"reduce", logs + "plain.csv", "--json"}).out);
        process.start(places::command, {"brew"});
        QVERIFY(process.waitForFinished());
        QCOMPARE(process.exitCode(), 2);
    }
};

IBUKI_TEST(TestCli)
#include "tst_cli.moc"
