// SPDX-License-Identifier: GPL-3.0-or-later
// The command meets inputs and targets that are wrong, too large, or each other: one line that says so, and
// nothing is destroyed.

#include "store/project/project.h"
#include "store/table/table.h"
#include "support/command.h"
#include "support/places.h"
#include "support/stored_story.h"
#include "support/test_class.h"

#include <QProcess>
#include <QTemporaryDir>
#include <QtTest>
#include <fmt/format.h>
#include <fstream>
#include <nlohmann/json.hpp>

using namespace ibuki;
using story::Outcome;
using story::run;
namespace fs = std::filesystem;

class TestHostileInput : public QObject {
    Q_OBJECT

    QTemporaryDir folder_;
    std::string file(const std::string& name) const {
        return folder_.filePath(QString::fromStdString(name)).toStdString();
    }
    std::string write(const std::string& name, const std::string& text) const {
        std::ofstream(file(name), std::ios::binary) << text;
        return file(name);
    }
    static std::string contents(const std::string& path) {
        std::ifstream in(path, std::ios::binary);
        return {std::istreambuf_iterator<char>(in), {}};
    }
    /// Refused in one line, exit 1 or 2.
    static bool isRefused(const Outcome& done) {
        return (done.code == 1 || done.code == 2) && std::count(done.err.begin(), done.err.end(), '\n') == 1
               && done.out.empty();
    }
    const std::string cutJob_ = R"({"pieces": [{"name": "p", "width_mm": 20, "length_mm": 20, "count": 2}],
                                    "sheets": [{"name": "s", "width_mm": 100, "length_mm": 100}]})";

private slots:
    void noInputIsATarget() {
        const std::string project = file("study.json"); // a project may bear any name
        story::storeMeasured(project);
        const std::string bench = write("bench.json", "{}");
        const std::string protocol = write("protocol.json", R"({"idle_s": 10, "load_s": 60})");
        const std::string job = write("job.json", cutJob_);
        const std::vector<std::pair<std::string, std::vector<std::string>>> attempts{
            {project, {"report", project, "-o", project}},
            {bench, {"simulate", "--bench", bench, "--protocol", protocol, "-o", bench}},
            {protocol, {"simulate", "--bench", bench, "--protocol", protocol, "-o", protocol}},
            {project, {"simulate", "--bench", bench, "--protocol", protocol, "-o", project}},
            {job, {"cut", job, "--svg", job}},
            {project, {"cut", job, "--svg", project}}};
        for (const auto& [victim, arguments] : attempts) {
            const std::string before = contents(victim);
            const Outcome done = run(arguments);
            QVERIFY2(done.code == 1, done.out.c_str());
            QVERIFY2(done.err.find("Choose another name") != std::string::npos, done.err.c_str());
            QVERIFY(contents(victim) == before);
        }
        fs::create_symlink(job, file("alias.svg"));
        const std::string before = contents(job);
        QCOMPARE(run({"cut", job, "--svg", file("alias.svg")}).code, 1);
        QCOMPARE(contents(job), before);
    }
    void aFullDeviceIsAFailure() {
        const std::string log = std::string(places::testData) + "/logs/plain.csv";
        for (const QString& arguments : {QString("reduce %1 --json"), QString("reduce %1")}) {
            QProcess shell;
            shell.start("sh", {"-c", QString("'%1' %2 > /dev/full")
                                         .arg(places::command, arguments.arg(QString::fromStdString(log)))});
            QVERIFY(shell.waitForFinished());
            QCOMPARE(shell.exitCode(), 1);
            QVERIFY(shell.readAllStandardError().contains("could not be written"));
        }
    }
    void everythingExtremeIsRefusedInALine_data() {
        QTest::addColumn<QStringList>("arguments");
        const auto row = [](const char* name, const QStringList& arguments) {
            QTest::newRow(name) << arguments;
        };
        row("tiny scatter", {"plan", "--groups", "4", "--mount-sd", "1e-300", "--difference", "1"});
        row("no scatter", {"plan", "--groups", "4", "--mount-sd", "nan", "--difference", "1"});
        row("too sure", {"plan", "--groups", "4", "--mount-sd", "0.4", "--difference", "1", "--confidence",
                         "0.9999999999999999"});
        row("too powerful", {"plan", "--groups", "4", "--mount-sd", "0.4", "--difference", "1", "--power",
                             "0.9999999999999999"});
        row("many groups", {"plan", "--groups", "2000000000", "--mount-sd", "0.4", "--difference", "1"});
        row("endless difference", {"plan", "--groups", "4", "--mount-sd", "0.4", "--difference", "1e300"});
        row("fine cells", {"dose", "--width", "30", "--length", "30", "--cell-mm", "1e-9"});
        row("no cells", {"dose", "--width", "30", "--length", "30", "--cell-mm", "nan"});
        row("wide face", {"dose", "--width", "1e300", "--length", "30"});
        row("endless face", {"dose", "--width", "inf", "--length", "30"});
        row("far reach",
            {"dose", "--width", "30", "--length", "30", "--reach-mm", "1e9", "--pattern", "line"});
        row("a flood", {"dose", "--width", "30", "--length", "30", "--volume-mm3", "1e15"});
        row("thin line", {"dose", "--width", "30", "--length", "30", "--bond-line-um", "1e-300"});
    }
    void everythingExtremeIsRefusedInALine() {
        QFETCH(QStringList, arguments);
        std::vector<std::string> words;
        for (const QString& one : arguments) words.push_back(one.toStdString());
        const Outcome done = run(words);
        QVERIFY2(isRefused(done), (std::to_string(done.code) + done.out + done.err).c_str());
    }
    void extremeCuttingJobsAreRefusedInALine() {
        for (
            const char* job :
            {R"({"pieces": [{"name": "p", "width_mm": 1, "length_mm": 1, "count": 2000000000}], "sheets": [{"name": "s", "width_mm": 100, "length_mm": 100}]})",
             R"({"pieces": [{"name": "p", "width_mm": 1e300, "length_mm": 1, "count": 1}], "sheets": [{"name": "s", "width_mm": 1e301, "length_mm": 100}]})",
             R"({"pieces": [{"name": "p", "width_mm": 1, "length_mm": 1, "count": 1e300}], "sheets": []})",
             R"({"pieces": [{"name": "p", "width_mm": 1, "length_mm": 1, "count": 1.5}], "sheets": []})",
             R"({"pieces": [], "sheets": [], "kerf_mm": 1e999})", R"({"kerf_mm": 1e300, "pieces": [{}]})"})
            QVERIFY2(isRefused(run({"cut", write("extreme.json", job)})), job);
        const std::string deep = write("deep.json", std::string(100'000, '[') + std::string(100'000, ']'));
        QVERIFY(isRefused(run({"cut", deep})));
        QVERIFY(isRefused(
            run({"reduce", std::string(places::testData) + "/logs/plain.csv", "--channels", deep})));
        QVERIFY(isRefused(run({"simulate", "--bench", deep, "--protocol", deep, "-o", file("x.csv")})));
    }
    void extremeSimulationsAreRefusedInALine() {
        const std::string bench = write("bench.json", "{}");
        for (const char* protocol : {R"({"load_s": 1e12})", R"({"interval_s": 1e-12})",
                                     R"({"interval_s": 0})", R"({"interval_s": -1})", R"({"idle_s": 1e300})",
                                     R"({"load_s": 1e999})", R"({"power_W": 1e300})"})
            QVERIFY2(isRefused(run({"simulate", "--bench", bench, "--protocol",
                                    write("protocol.json", protocol), "-o", file("x.csv")})),
                     protocol);
    }
    void namesThatNoFileSystemTakesAreOneLine() {
        const std::string name = std::string(300, 'n');
        fs::create_symlink(file("loop-b"), file("loop-a"));
        fs::create_symlink(file("loop-a"), file("loop-b"));
        for (const std::string& path : {file(name + ".ibuki"), file("loop-a"), std::string()})
            for (const std::vector<std::string>& arguments :
                 {std::vector<std::string>{"report", path, "-o", file("r.html")},
                  {"reduce", path},
                  {"compare", path},
                  {"cut", path}})
                QVERIFY2(isRefused(run(arguments)), path.c_str());
        const std::string project = file("named.ibuki");
        story::storeMeasured(project);
        QVERIFY(isRefused(run({"report", project, "-o", file(name + ".html")})));
    }
    void badTextInATableStillMakesJson() {
        std::string table = "material,mount,delta_K\n";
        for (const char* level : {"A\xc0\xaf", "B\xed\xa0\x80", "C\x01"})
            for (int mount = 1; mount <= 3; ++mount)
                table += fmt::format("{},{},{}\n", level, mount, 20 + mount * 0.1 + level[0]);
        const Outcome done = run({"compare", write("table.csv", table), "--json"});
        QVERIFY2(done.code == 0, done.err.c_str());
        QVERIFY(nlohmann::json::accept(done.out));
    }
    void formulasAreText() {
        for (const char* text : {"=1+1", "+cmd", "-2+3", "@SUM(A1)", "\tx", "\rx", "'=1", "''+x"}) {
            const std::string field = csvField(text);
            QVERIFY2(field.front() == '\'' || (field.front() == '"' && field[1] == '\''), field.c_str());
            const Table table = readTable("a,b\n" + field + ",1\n", "t.csv");
            if (std::string(text).find_first_of("\t\r") == std::string::npos)
                QCOMPARE(table.text(0, 0), std::string(text)); // and comes back as it was
        }
        for (const char* plain : {"-2.5", "+3", "Tern 11", "1e5", "'quoted'", ""})
            QCOMPARE(csvField(plain), std::string(plain));
        QCOMPARE(csvField("two\rlines"), std::string("\"two\rlines\""));
    }
    void manyGroupsAreComparedInTime() { // 200 of unequal size: over 300 s once, bench/ has the figure
        std::string table = "material,mount,delta_K\n";
        for (int g = 0; g < 200; ++g)
            for (int m = 0; m < 2 + g % 5; ++m)
                table +=
                    fmt::format("g{},{},{}\n", g, m, 20 + 0.05 * g + 0.3 * ((g * 7 + m * 13) % 11) / 11.0);
        const Outcome done = run({"compare", write("many.csv", table), "--json"});
        QCOMPARE(done.code, 0);
        QCOMPARE(nlohmann::json::parse(done.out)["pairs"].size(), std::size_t{19'900});
    }
};

IBUKI_TEST(TestHostileInput)
#include "tst_hostile_input.moc"
