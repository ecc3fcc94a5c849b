// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/plausible.h"
#include "support/test_class.h"

#include <QtTest>
#include <cmath>

using namespace ibuki;

class TestPlausible : public QObject {
    Q_OBJECT

    static Trace traceOf(Role role, std::vector<double> values) {
        Trace trace;
        for (std::size_t i = 0; i < values.size(); ++i) trace.timeS.push_back(static_cast<double>(i));
        trace.channels.push_back({"x", Unit::none, role, 0, std::move(values), {}});
        return trace;
    }
    static std::vector<std::size_t> blanked(Role role, std::vector<double> values) {
        Trace trace = traceOf(role, std::move(values));
        blankImpossible(trace);
        std::vector<std::size_t> rows;
        for (std::size_t i = 0; i < trace.samples(); ++i)
            if (std::isnan(trace.channels.front().values[i])) rows.push_back(i);
        return rows;
    }

private slots:
    void whatNoSensorReadsIsBlanked() {
        using Rows = std::vector<std::size_t>;
        QCOMPARE(blanked(Role::core, {60, 60, 255, 60, -273.15, 60}), (Rows{2, 4}));
        QCOMPARE(blanked(Role::core, {60, 61, 0, 60, 61}), (Rows{2}));   // dropped out
        QCOMPARE(blanked(Role::core, {2, 1, 0, -1, 1}), (Rows{}));       // a cold room may be at 0
        QCOMPARE(blanked(Role::core, {60, 60, 127, 60, 60}), (Rows{2})); // a spike
        QCOMPARE(blanked(Role::core, {60, 60, 127, 126, 60, 60}), (Rows{2, 3}));
        QCOMPARE(blanked(Role::core, {60, -273.15, 127, 60, 60}), (Rows{1, 2})); // one beside another
        QCOMPARE(blanked(Role::ambient, {22, 22, 40, 22}), (Rows{2}));
        QCOMPARE(blanked(Role::packagePower, {150, -1, 151, 65535}), (Rows{1, 3}));
        QCOMPARE(blanked(Role::fan, {1400, 0, 1400}), (Rows{})); // it may stand still
        QCOMPARE(blanked(Role::ignore, {1e9, -1e9}), (Rows{}));
    }
    void aLoadIsNoSpike() {
        QVERIFY(blanked(Role::core, {35, 35, 80, 82, 84, 60, 40}).empty());
        QVERIFY(blanked(Role::core, {35, 36, 60, 36, 35}).empty()); // a short burst is real
    }
    void aSmallSpikeCountsOnlyWhileThePowerStays() {
        const std::vector<double> hot{99, 100, 99, 100, 127, 100, 99, 99, 100};
        const auto chipWith = [&](std::vector<double> power) {
            Trace trace = traceOf(Role::core, hot);
            trace.channels.push_back({"p", Unit::watt, Role::packagePower, 0, std::move(power), {}});
            blankImpossible(trace);
            return std::isnan(trace.channels.front().values[4]);
        };
        QVERIFY(chipWith({150, 151, 150, 149, 150, 150, 151, 150, 150}));
        QVERIFY(!chipWith({150, 151, 150, 149, 210, 150, 151, 150, 150})); // a burst
        QVERIFY(blanked(Role::core, hot).empty());                         // nobody knows
    }
    void aNoisyChipIsLeftAlone() {
        Trace trace = traceOf(Role::core, {96, 103, 99, 95, 119, 104, 97, 95, 101});
        trace.channels.push_back({"p", Unit::watt, Role::packagePower, 0, std::vector<double>(9, 150), {}});
        blankImpossible(trace);
        QCOMPARE(trace.impossible, std::int64_t{0});
    }
    void theyAreCountedWithTheFirst() {
        Trace trace = traceOf(Role::core, {60, 255, 60, 250});
        const auto cells = blankImpossible(trace);
        QCOMPARE(cells.size(), std::size_t{1});
        QCOMPARE(cells.front().firstRow, std::size_t{1});
        QCOMPARE(cells.front().first, 255.0);
        QCOMPARE(cells.front().count, std::int64_t{2});
        QCOMPARE(trace.impossible, std::int64_t{2});
    }
};

IBUKI_TEST(TestPlausible)
#include "tst_plausible.moc"
