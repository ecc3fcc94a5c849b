// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/stated_figures.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestStatedFigures : public QObject {
    Q_OBJECT

    static StatedRow noted() {
        StatedRow row;
        row.figures.metricsC = {{Metric::hottest, 71}, {Metric::package, 74}};
        row.figures.idleC = 30;
        row.figures.powerW = 100;
        return row;
    }

private slots:
    void aRoomThatComesLaterIsAsOneThatWasThere() {
        StatedRow with = noted();
        with.roomC = 21;
        const Reduction known = logOfFigures(with, Metric::hottest).reduction;
        QCOMPARE(known.loads.front().metrics.at(Metric::hottest).deltaK, std::optional(50.0));
        QVERIFY_NEAR(*known.loads.front().rthKPerW, 0.5, 1e-12);
        QCOMPARE(known.others.at(Metric::package).loads.front().metrics.at(Metric::package).deltaK,
                 std::optional(53.0));
        Reduction later = logOfFigures(noted(), Metric::hottest).reduction;
        const Reduction without = later;
        QVERIFY(hasFlag(later.flags, "ambient-missing") && !later.loads.front().rthKPerW);
        putRoomOfFigures(later, 21);
        QVERIFY(later == known);
        putRoomOfFigures(later, std::nullopt);
        QVERIFY(later == without);
    }
    void aDifferenceThatWasStatedAloneStays() {
        StatedRow row;
        row.figures.deltaK = 41.2;
        Reduction reduction = logOfFigures(row, Metric::hottest).reduction;
        putRoomOfFigures(reduction, 25);
        const MetricValue value = reduction.loads.front().metrics.at(Metric::hottest);
        QCOMPARE(value.deltaK, std::optional(41.2));
        QVERIFY(!value.temperatureC && !hasFlag(reduction.flags, "ambient-missing"));
        QVERIFY(!reduction.hottestC);
    }
};

IBUKI_TEST(TestStatedFigures)
#include "tst_stated_figures.moc"
