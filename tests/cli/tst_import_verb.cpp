// SPDX-License-Identifier: GPL-3.0-or-later
// import, as somebody types it: names of files, powers, times, tables.
#include "core/simulate/simulated_bench.h"
#include "store/log/log_writer.h"
#include "support/command.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <QDir>
#include <QTemporaryDir>
#include <fstream>
#include <nlohmann/json.hpp>

using namespace ibuki;
using nlohmann::json;
using story::Outcome;
using story::run;

class TestImportVerb : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    int project_ = 0;
    std::uint64_t seed_ = 1;

    std::string path(const std::string& name) const {
        return folder_.filePath(QString::fromStdString(name)).toStdString();
    }
    std::string newProject() {
        const std::string made = path("p" + std::to_string(++project_) + ".ibuki");
        return run({"new", made, "--bench", "node-2", "--template", "lidded-chip"}).code == 0 ? made
                                                                                              : std::string();
    }
    /// No two alike: each has noise of its own.
    std::string log(const std::string& name, double watts, const char* start = nullptr, double kPerW = 0.1,
                    bool room = true) {
        SimulatedBench bench;
        bench.interfaceKPerW = kPerW;
        SimulatedProtocol protocol;
        protocol.loadS = 900;
        protocol.intervalS = 4;
        protocol.powerW = watts;
        protocol.start = start ? parseInstant(start) : std::nullopt;
        Trace trace = simulate(bench, protocol, ++seed_).trace;
        if (!room)
            std::erase_if(trace.channels, [](const Channel& one) { return one.role == Role::ambient; });
        const std::string file = path(name);
        QDir().mkpath(QFileInfo(QString::fromStdString(file)).path());
        std::ofstream(file, std::ios::binary) << logText(trace);
        return file;
    }
    std::string table(const std::string& text) const {
        const std::string file = path("table.csv");
        std::ofstream(file, std::ios::binary) << text;
        return file;
    }
    static json brought(std::vector<std::string> arguments) {
        arguments.insert(arguments.begin(), "import");
        arguments.emplace_back("--json");
        const Outcome done = run(arguments);
        if (done.code != 0) {
            qWarning("%s", done.err.c_str());
            return {};
        }
        return json::parse(done.out);
    }
    static bool has(const json& row, const std::string& code) {
        for (const json& flag : row["flags"])
            if (flag["code"] == code) return true;
        return false;
    }
    static std::string told(const json& row) {
        return row["level"].get<std::string>() + "|" + row["mount"].get<std::string>() + "|"
               + row["load"].get<std::string>() + "|" + std::to_string(row["run"].get<int>()) + "|"
               + row["purpose"].get<std::string>();
    }

private slots:
    void unlikePowersAreLoadsAndEqualOnesRuns() {
        const std::string project = newProject();
        const json j = brought({project, log("tern 11_m1_a.csv", 120, "2031-03-04 10:00"),
                                log("x/tern 11_m1_a.csv", 121, "2031-03-04 10:40"),
                                log("y/tern 11_m1_a.csv", 160, "2031-03-04 11:20"),
                                log("slate_m1_a.csv", 119, "2031-03-04 12:00")});
        QCOMPARE(j["rows"].size(), std::size_t{4});
        QCOMPARE(told(j["rows"][0]), std::string("tern 11 a|1|120 W|1|fresh"));
        QCOMPARE(told(j["rows"][1]), std::string("tern 11 a|1|120 W|2|fresh"));
        QCOMPARE(told(j["rows"][2]), std::string("tern 11 a|1|160 W|1|fresh"));
        QCOMPARE(told(j["rows"][3]), std::string("slate a|1|120 W|1|fresh")); // no load of its own
        for (const json& row : j["rows"]) QVERIFY(row["level_new"] && row["load_new"]);
        QCOMPARE(j["written"], true);
        QCOMPARE(j["rows"][0]["file"], "tern 11_m1_a.csv");
        QCOMPARE(j["rows"][0]["when"], "2031-03-04T10:00:00");
        QVERIFY_NEAR(j["rows"][2]["age_h"].get<double>(), 4.0 / 3, 1e-9);
        // The study has the names now: neighbouring words are one load, whatever the power.
        const json again = brought({project, log("tern 11 a m2 160 w.csv", 140, "2031-03-05 10:00")});
        QCOMPARE(told(again["rows"][0]), std::string("tern 11 a|2|160 W|1|fresh"));
        QVERIFY(!again["rows"][0]["level_new"] && !again["rows"][0]["load_new"]);
    }
    void aSingleLogIsOfTheOnlyLoad() {
        const std::string project = newProject();
        brought({project, log("tern m1.csv", 120, "2031-03-04 10:00")});
        const json j = brought({project, log("slate m1.csv", 150, "2031-03-04 11:00")});
        QCOMPARE(told(j["rows"][0]), std::string("slate|1|120 W|1|fresh"));
        // Beside another run of its mount it is of another.
        const json more = brought({project, log("slate m1 b.csv", 175, "2031-03-04 12:00")});

        QCOMPARE(told(more["rows"][0]), std::string("slate|1|175 W|1|fresh"));
        const json same = brought({project, log("2/slate m1.csv", 120, "2031-03-04 13:00")});
        QCOMPARE(same["rows"][0]["load"], "120 W");
    }
    void whatComesHalfADayLaterIsALaterLook() {
        const std::string project = newProject();
        const json j = brought({project, log("tern m1.csv", 120, "2031-03-04 10:00"),
                                log("a/tern m1.csv", 120, "2031-03-04 20:00"),
                                log("b/tern m1.csv", 120, "2031-03-06 10:00")});
        QCOMPARE(told(j["rows"][1]), std::string("tern|1|120 W|2|fresh"));
        QCOMPARE(told(j["rows"][2]), std::string("tern|1|120 W|1|check"));
        QVERIFY(has(j["rows"][2], "taken-as-check") && !has(j["rows"][1], "taken-as-check"));
        QCOMPARE(j["rows"][2]["age_h"].get<double>(), 48.0);
        const json later = brought({project, log("c/tern m1.csv", 120, "2031-03-08 10:00")});
        QVERIFY(has(later["rows"][0], "taken-as-check")); // also of a mount that is in the record
        const json said = brought({project, log("tern m1 day 8.csv", 120)});
        QCOMPARE(told(said["rows"][0]), std::string("tern|1|120 W|3|check"));
        QCOMPARE(said["rows"][0]["age_h"].get<double>(), 168.0);
        QVERIFY(said["rows"][0]["when"].is_null()); // a file's time is no time of a log
        QVERIFY(!has(said["rows"][0], "taken-as-check"));
    }
    void theSameBytesAreThereAlready() {
        const std::string project = newProject();
        const std::string file = log("tern m1.csv", 120, "2031-03-04 10:00");
        const std::string copy = path("copy of tern.csv");
        QVERIFY(QFile::copy(QString::fromStdString(file), QString::fromStdString(copy)));
        const json j = brought({project, file, copy});
        QVERIFY(has(j["rows"][1], "already-there") && !has(j["rows"][0], "already-there"));
        const json again = brought({project, copy});
        QVERIFY(has(again["rows"][0], "already-there"));
        QCOMPARE(told(again["rows"][0]), std::string("tern|1|120 W|1|fresh")); // as it is in the record
        QCOMPARE(again["written"], false);
    }
    void aDryRunWritesNothing() {
        const std::string project = newProject();
        QFile before(QString::fromStdString(project));
        QVERIFY(before.open(QIODevice::ReadOnly));
        const QByteArray bytes = before.readAll();
        const json j = brought({project, log("tern m1.csv", 120), "--dry-run"});
        QCOMPARE(j["written"], false);
        QCOMPARE(told(j["rows"][0]), std::string("tern|1|120 W|1|fresh"));
        QFile after(QString::fromStdString(project));
        QVERIFY(after.open(QIODevice::ReadOnly));
        QCOMPARE(after.readAll(), bytes);
    }
    void aTypedRoomIsUsedWhereTheLogHasNone() {
        const std::string project = newProject();
        log("bare.csv", 120, "2031-03-04 10:00", 0.1, false);
        log("own.csv", 120, "2031-03-04 11:00");
        const json j = brought({project, "--table",
                                table("File,Material,Mount,Room F,room_u_K\nbare.csv,Tern,1,71.6,1\n"
                                      "own.csv,Slate,1,71.6,\n")});
        QVERIFY_NEAR(j["rows"][0]["room_C"].get<double>(), 22, 1e-9);
        QVERIFY_NEAR(j["rows"][0]["delta_K"].get<double>(), j["rows"][0]["temperature_C"].get<double>() - 22,
                     1e-9);
        QVERIFY(has(j["rows"][1], "room-ignored") && !has(j["rows"][0], "room-ignored"));
        QVERIFY(std::abs(j["rows"][1]["room_C"].get<double>() - 22) > 1e-3);
    }
    void figuresWithoutALogAreRuns() {
        const std::string project = newProject();
        const std::string figures = table("level,mount,load,hottest_C,room_C,power_W,score,extra,when\n"
                                          "Tern,1,Kiln,71,22,120,900,x,2031-03-04 10:00\n\n"
                                          "Tern,1,Mill,61,22,80,910,,\n"
                                          "Slate,1,Kiln,75,,120,880,,\n"
                                          ",,,,,,,,\n");
        const json j = brought({project, "--table", figures});
        QCOMPARE(j["rows"].size(), std::size_t{3});
        QCOMPARE(told(j["rows"][0]), std::string("Tern|1|Kiln|1|fresh"));
        QCOMPARE(told(j["rows"][1]), std::string("Tern|1|Mill|1|fresh"));
        QCOMPARE(j["rows"][0]["delta_K"].get<double>(), 49.0);
        QVERIFY(j["rows"][0]["file"].is_null() && has(j["rows"][0], "no-log"));
        QVERIFY(j["rows"][2]["delta_K"].is_null() && has(j["rows"][2], "ambient-missing"));
        QCOMPARE(j["rows"][2]["temperature_C"].get<double>(), 75.0);
        QCOMPARE(j["flags"].size(), std::size_t{1});
        QCOMPARE(j["flags"][0]["code"], "column-ignored");
        const json again = brought({project, "--table", figures});
        for (const json& row : again["rows"]) QVERIFY(has(row, "already-there"));
        QCOMPARE(again["written"], false);
        // They are compared, and the load that the table named is 120 W to a log without a name.
        QCOMPARE(run({"report", project, "-o", path("r.json")}).code, 0);
        const json logged = brought({project, log("tern m1.csv", 122, "2031-03-04 12:00")});
        QCOMPARE(told(logged["rows"][0]), std::string("Tern|1|Kiln|2|fresh"));
    }
    void onlyTheDifferenceMayBeKnown() {
        const std::string project = newProject();
        const json j =
            brought({project, "--table", table("level,mount,delta_K\nTern,1,41.2\nTern,2,41.6\n")});
        QCOMPARE(j["rows"][0]["delta_K"].get<double>(), 41.2);
        QVERIFY(j["rows"][0]["temperature_C"].is_null() && !has(j["rows"][0], "ambient-missing"));
        QCOMPARE(run({"report", project, "-o", path("r.csv")}).code, 0);
        QCOMPARE(run({"report", project, "-o", path("r.html")}).code, 0);
    }
    void anotherRunOfTheSameFigureIsAnother() {
        const std::string project = newProject();
        brought({project, "--table", table("level,mount,delta_K,run,age_h\nTern,1,41.2,1,\n")});
        const json j = brought({project, "--table",
                                table("level,mount,delta_K,run,age_h\nTern,1,41.2,1,\nTern,1,41.2,2,\n"
                                      "Tern,1,41.2,,30\n")});
        QVERIFY(has(j["rows"][0], "already-there"));
        QVERIFY(!has(j["rows"][1], "already-there") && !has(j["rows"][2], "already-there"));
        QCOMPARE(j["rows"][1]["run"], 2);
        QCOMPARE(j["rows"][2]["run"], 3);
    }
    void anEmptyMountIsOneOfItsOwn() {
        const std::string project = newProject();
        const json j = brought({project, "--table",
                                table("level,delta_K,purpose,rejected\nTern,41.2,,\nTern,41.6,,\n"
                                      "Tern,43,excluded,\nTern,44,,bubble\n")});
        for (std::size_t i = 0; i < 4; ++i) QCOMPARE(j["rows"][i]["mount"], std::to_string(i + 1));
        QCOMPARE(j["rows"][2]["purpose"], "excluded");
    }
    void unlikePowersInOneCellAreSaid() {
        const std::string project = newProject();
        const json j =
            brought({project, "--table",
                     table("level,mount,load,delta_K,power_W\nTern,1,Kiln,41,100\nTern,1,Kiln,45,110\n"
                           "Tern,2,Kiln,41,100\nTern,2,Kiln,41.1,104.9\n")});
        QVERIFY(has(j["rows"][0], "loads-unlike") && has(j["rows"][1], "loads-unlike"));
        QVERIFY(!has(j["rows"][2], "loads-unlike") && !has(j["rows"][3], "loads-unlike"));
        QCOMPARE(told(j["rows"][1]), std::string("Tern|1|Kiln|2|fresh"));
    }
    void whatCannotBeUsedIsNamed_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("said");
        QTest::newRow("no figure") << "level,mount\nTern,1\n"
                                   << "table.csv, line 2";
        QTest::newRow("no log") << "level,file\nTern,gone.csv\n"
                                << "table.csv, line 2";
        QTest::newRow("no level") << "level,delta_K\n,41\n"
                                  << "table.csv, line 2";
        QTest::newRow("word") << "level,delta_K\nTern,41\nTern,warm\n"
                              << "table.csv, line 3, column 2";
        QTest::newRow("purpose") << "level,delta_K,purpose\nTern,41,old\n"
                                 << "table.csv, line 2, column 3";
        QTest::newRow("when") << "level,delta_K,when\nTern,41,yesterday\n"
                              << "table.csv, line 2, column 3";
        QTest::newRow("run") << "level,delta_K,run\nTern,41,1.5\n"
                             << "table.csv, line 2, column 3";
        QTest::newRow("far") << "level,delta_K,when\nTern,41,0001-01-01\n"
                             << "table.csv, line 2, column 3";
        QTest::newRow("cold") << "level,hottest_C\nTern,-400\n"
                              << "table.csv, line 2, column 2";
        QTest::newRow("twice") << "level,Material,delta_K\nTern,Tern,41\n"
                               << "table.csv, line 1, column 2";
        QTest::newRow("empty") << "level,delta_K\n\n"
                               << "table.csv";
    }
    void whatCannotBeUsedIsNamed() {
        QFETCH(QString, text);
        QFETCH(QString, said);
        const std::string project = newProject();
        const Outcome done = run({"import", project, "--table", table(text.toStdString())});
        QCOMPARE(done.code, 1);
        QVERIFY2(QString::fromStdString(done.err).contains(said), done.err.c_str());
        // One bad row, and nothing of the others is written.
        QVERIFY(run({"report", project, "-o", path("r.csv")}).code == 1);
    }
    void aLogWithoutARoomSaysSo() {
        const std::string project = newProject();
        const json j = brought({project, log("tern m1.csv", 120, "2031-03-04 10:00", 0.1, false)});
        QVERIFY(has(j["rows"][0], "ambient-missing"));
        QVERIFY(j["rows"][0]["delta_K"].is_null() && j["rows"][0]["temperature_C"].is_number());
    }
    void namesOfSignsAreNames() {
        const std::string project = newProject();
        const json j =
            brought({project, "--table",
                     table("level,mount,delta_K,load\n---,-,41,...\n...,-,42,...\n---,-,43,!!\n")});
        QCOMPARE(told(j["rows"][0]), std::string("---|-|...|1|fresh"));
        QCOMPARE(told(j["rows"][1]), std::string("...|-|...|1|fresh"));
        QCOMPARE(told(j["rows"][2]), std::string("---|-|!!|1|fresh"));
    }
    void wrongUsageSaysSo() {
        const std::string project = newProject();
        const std::string file = log("tern m1.csv", 120);
        QCOMPARE(run({"import", project}).code, 2);
        QCOMPARE(run({"import", project, file, "--table", file}).code, 2);
        QCOMPARE(run({"import", project, file, "--bench", "node-9"}).code, 2);
        QCOMPARE(run({"import", path("none.ibuki"), file}).code, 1);
        QCOMPARE(run({"import", project, path("gone.csv")}).code, 1);
    }
};

IBUKI_TEST(TestImportVerb)
#include "tst_import_verb.moc"
