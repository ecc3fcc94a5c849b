// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/trace/time_axis.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestTimeAxis : public QObject {
    Q_OBJECT

    static std::vector<double> seconds(int n, double step = 1) {
        std::vector<double> stamps;
        for (int i = 0; i < n; ++i) stamps.push_back(i * step);
        return stamps;
    }

private slots:
    void startsAtZero() {
        const auto axis = repairTimeAxis(std::vector<double>{100, 101, 102}, false, {});
        QCOMPARE(axis.timeS, (std::vector<double>{0, 1, 2}));
    }
    void carriesAClockOverMidnight() {
        const auto axis = repairTimeAxis(std::vector<double>{86398, 86399, 0, 1}, true, {});
        QCOMPARE(axis.timeS, (std::vector<double>{0, 1, 2, 3}));
        QCOMPARE(axis.report.clockJumps, 0);
    }
    void takesOutABackwardStep() {
        auto stamps = seconds(20);
        for (std::size_t i = 10; i < 20; ++i) stamps[i] -= 3600;
        const auto axis = repairTimeAxis(stamps, false, {});
        QCOMPARE(axis.report.clockJumps, 1);
        QCOMPARE(axis.timeS.back(), 19.0);
    }
    void takesOutAForwardHourWhenTheTemperatureGoesOn() {
        auto stamps = seconds(20);
        for (std::size_t i = 10; i < 20; ++i) stamps[i] += 3600;
        const std::vector<double> flat(20, 60.0);
        QCOMPARE(repairTimeAxis(stamps, false, flat).report.clockJumps, 1);
        std::vector<double> cooled(20, 60.0);
        for (std::size_t i = 10; i < 20; ++i) cooled[i] = 30;
        const auto paused = repairTimeAxis(stamps, false, cooled);
        QCOMPARE(paused.report.clockJumps, 0);
        QCOMPARE(paused.report.gaps, 1);
        QCOMPARE(paused.timeS.back(), 3619.0);
    }
    void keepsAGap() {
        auto stamps = seconds(20);
        for (std::size_t i = 10; i < 20; ++i) stamps[i] += 100;
        const auto axis = repairTimeAxis(stamps, false, {});
        QCOMPARE(axis.report.gaps, 1);
        QCOMPARE(axis.timeS.back(), 119.0);
    }
    void dropsRepeatedRows() {
        const auto axis = repairTimeAxis(std::vector<double>{0, 1, 2, 2, 3, 4, 5, 6}, false, {});
        QCOMPARE(axis.report.duplicatesDropped, 1);
        QCOMPARE(axis.keep, (std::vector<std::size_t>{0, 1, 2, 4, 5, 6, 7}));
    }
    void spreadsStampsOfCoarseResolution() {
        const auto axis = repairTimeAxis(std::vector<double>{0, 0, 1, 1, 2, 2, 3, 3}, false, {});
        QCOMPARE(axis.report.duplicatesDropped, 0);
        QCOMPARE(axis.timeS, (std::vector<double>{0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5}));
    }
    void leavesOutRowsWithoutAStamp() {
        const auto axis = repairTimeAxis(std::vector<double>{0, std::nan(""), 2}, false, {});
        QCOMPARE(axis.keep, (std::vector<std::size_t>{0, 2}));
        QVERIFY(repairTimeAxis({}, false, {}).timeS.empty());
    }
};

IBUKI_TEST(TestTimeAxis)
#include "tst_time_axis.moc"
