// SPDX-License-Identifier: GPL-3.0-or-later
// What the names of files tell, by the rules of docs/cli.md.
#include "core/import/log_name.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestLogName : public QObject {
    Q_OBJECT

    static StatedRow told(const std::string& name, bool hasTime = false) {
        return statedByName(
            name, {{"Tern 11", "Tern", "Slate 25", "Bay 2031-03-04"}, {"slow march", "110 W"}}, hasTime);
    }

private slots:
    void levelMountLoadAndRun_data() {
        QTest::addColumn<QString>("level");
        QTest::addColumn<QString>("mount");
        QTest::addColumn<QString>("load");
        QTest::addColumn<int>("run");
        const auto row = [](const char* file, const char* level, const char* mount, const char* load,
                            int run) { QTest::newRow(file) << level << mount << load << run; };
        row("tern-11_m2_slow-march_run3.csv", "tern 11", "2", "slow march", 3);
        row("TERN.11 Mount 02 Slow March r1.csv", "TERN 11", "2", "Slow March", 1);
        row("Tern_11,#4.csv", "Tern 11", "4", "", 0);
        row("tern 7.csv", "tern", "7", "", 0);       // the longest known run is "Tern"
        row("tern 11 7.csv", "tern 11", "7", "", 0); // not "tern" on mount 7
        row("slow march slate 25 mount3.csv", "slate 25", "3", "slow march", 0);
        row("grey paste_2.csv", "grey paste", "2", "", 0);
        row("Grey Paste m1 rub.csv", "Grey Paste rub", "1", "", 0);
        row("run7.csv", "", "", "", 7);
        row("12.csv", "", "12", "", 0);
        row("marl6.csv", "marl6", "", "", 0); // a letter and a digit stay together
        row("marl 6 m1.csv", "marl 6", "1", "", 0);
        row("march slow tern.csv", "tern", "", "", 0); // not the load's name
        row(".csv", "csv", "", "", 0);
        row("no ending", "no ending", "", "", 0);
        row("m99999999999.csv", "m99999999999", "", "", 0); // no number that can be
        row("\xc3\x84hre_m2.csv", "\xc3\x84hre", "2", "", 0);
    }
    void levelMountLoadAndRun() {
        const StatedRow said = told(QTest::currentDataTag());
        QFETCH(QString, level);
        QFETCH(QString, mount);
        QFETCH(QString, load);
        QFETCH(int, run);
        QCOMPARE(QString::fromStdString(said.level), level);
        QCOMPARE(QString::fromStdString(said.mount), mount);
        QCOMPARE(QString::fromStdString(said.load), load);
        QCOMPARE(said.run.value_or(0), run);
    }
    void powersAreLoads() {
        for (const char* name : {"tern 11_m1_150w.csv", "tern 11 m1 150 W.csv", "150W_tern-11_m1.csv"}) {
            const StatedRow said = told(name);
            QCOMPARE(said.nominalW, std::optional(150.0));
            QCOMPARE(said.mount, std::string("1"));
        }
        QCOMPARE(told("tern 11 110w.csv").load, std::string()); // its power says it; the name is not asked
        QVERIFY(!told("tern 11 0w.csv").nominalW);
        QVERIFY(!told("window_m1.csv").nominalW);
    }
    void timesCountWhereTheLogHasNone() {
        const auto at = [](const char* name) { return told(name).when; };
        QCOMPARE(at("tern 11 2031-03-04.csv"), parseInstant("2031-03-04"));
        QCOMPARE(at("tern 11 20310304 18-30 m1.csv"), parseInstant("2031-03-04 18:30"));
        QCOMPARE(at("4.3.2031_tern-11_2.csv"), parseInstant("2031-03-04"));
        QVERIFY(!told("tern 11 2031-03-04.csv", true).when);
        QCOMPARE(told("tern 11 2031-03-04.csv", true).mount, std::string()); // still no number of a mount
        QVERIFY(!at("tern 11 2031-13-04.csv"));
        QVERIFY(!at("Bay 2031-03-04.csv")); // the name of a level is set aside first
        QCOMPARE(told("tern 11 2031-03-04 25-30 m1.csv").when, parseInstant("2031-03-04"));
    }
    void agesAreLaterLooks() {
        const auto age = [](const char* name) { return told(name).ageH; };
        QCOMPARE(age("tern 11 m1 day 3.csv"), std::optional(48.0));
        QCOMPARE(age("tern 11 m1 day3.csv"), std::optional(48.0));
        QCOMPARE(age("tern 11 m1 +2d.csv"), std::optional(48.0));
        QCOMPARE(age("tern 11 m1 36h.csv"), std::optional(36.0));
        QCOMPARE(age("tern 11 m1 +36h.csv"), std::optional(36.0));
        QCOMPARE(told("tern 11 m1 36h.csv").purpose, std::optional(StatedPurpose::check));
        QCOMPARE(told("tern 11 m1 day 1.csv").purpose, std::optional(StatedPurpose::fresh));
        QCOMPARE(age("tern 11 m1 day 1.csv"), std::optional(0.0));
        QVERIFY(!age("tern 11 m1 2d.csv")); // may be anything
        QVERIFY(!told("tern 11 m1.csv").purpose);
        QVERIFY(!age("tern 11 m1 day 99999999.csv") && !told("tern 11 m1 day 99999999.csv").purpose);
    }
    void anyNameIsRead() { // never out of bounds, and nothing is made of nothing
        const std::string pieces[] = {"m", "#",   "+",     "w", "day", "2031", "03",
                                      "h", "150", "mount", "-", ".",   ""};
        for (const std::string& a : pieces)
            for (const std::string& b : pieces)
                for (const std::string& c : pieces)
                    for (const char* between : {"", " ", "_"}) {
                        const StatedRow said = told(a + between + b + between + c);
                        QVERIFY(!said.run || *said.run >= 0);
                        QVERIFY(!said.nominalW || *said.nominalW > 0);
                    }
    }
};

IBUKI_TEST(TestLogName)
#include "tst_log_name.moc"
