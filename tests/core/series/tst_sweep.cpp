// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/comparison/value_front.h"
#include "core/series/bench_health.h"
#include "core/series/sweep.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

/// Handbook DS2: K at 100, 150, 200, 250 W, three mounts a material (docs/methods.md, F.1).
std::vector<SweepPoint> ds2() {
    const double rows[6][4] = {{17.9, 26.6, 35.1, 43.8}, {18.0, 26.9, 35.4, 44.3}, {18.4, 26.9, 35.5, 44.3},
                               {18.7, 27.0, 35.4, 43.4}, {18.7, 26.9, 35.1, 43.4}, {18.5, 26.8, 35.0, 43.3}};
    std::vector<SweepPoint> points;
    for (int m = 0; m < 6; ++m)
        for (int i = 0; i < 4; ++i)
            points.push_back(
                {{m / 3 + 1, m < 3 ? "A" : "B"}, {m + 1, std::to_string(m)}, 100.0 + 50 * i, rows[m][i]});
    return points;
}

std::vector<SweepPoint> settings(const std::vector<double>& x, const std::vector<double>& y) {
    std::vector<SweepPoint> points;
    for (std::size_t i = 0; i < x.size(); ++i)
        points.push_back({{1, "A"}, {static_cast<std::int64_t>(i) + 1, std::to_string(i)}, x[i], y[i]});
    return points;
}

ValueRow valueRow(const std::string& name, double delta, double price, double se = 0) {
    ValueRow row{name, {}, se};
    row.values[0] = delta;
    row.values[1] = price;
    return row;
}

QString refusalOf(const std::function<void()>& action) {
    try {
        action();
        return {};
    } catch (const InputError& error) {
        return QString::fromStdString(error.code);
    }
}

} // namespace

class TestSweep : public QObject {
    Q_OBJECT
private slots:
    void linesOfMounts_data() {
        QTest::addColumn<double>("at");
        QTest::addColumn<double>("gap");
        QTest::addColumn<double>("lo");
        QTest::addColumn<double>("hi");
        QTest::newRow("120 W") << 120.0 << 0.3833 << -0.0021 << 0.7688;
        QTest::newRow("180 W") << 180.0 << -0.1167 << -0.5133 << 0.2799;
        QTest::newRow("240 W") << 240.0 << -0.6167 << -1.0645 << -0.1688;
    }
    void linesOfMounts() { // methods F.1, B − A; here a − b
        QFETCH(double, at);
        QFETCH(double, gap);
        QFETCH(double, lo);
        QFETCH(double, hi);
        SweepOptions options;
        options.at = at;
        const Lines found = sweepLines(ds2(), options);
        QVERIFY_NEAR(-found.pairs.front().gap, gap, 5e-5);
        QVERIFY_NEAR(-found.pairs.front().gapInterval->hi, lo, 5e-5);
        QVERIFY_NEAR(-found.pairs.front().gapInterval->lo, hi, 5e-5);
    }
    void slopesAndCrossover() { // methods F.1, F.2
        const Lines found = sweepLines(ds2());
        QVERIFY_NEAR(found.lines[0].intercept, 0.7700, 1e-9);
        QVERIFY_NEAR(found.lines[1].intercept, 2.153333, 1e-6);
        QVERIFY_NEAR(found.lines[0].slope, 0.1732667, 1e-7);
        QVERIFY_NEAR(found.lines[1].slope, 0.1649333, 1e-7);
        QCOMPARE(found.df, 4.0);
        QVERIFY_REL(std::sqrt(found.equalSlopes->f), 10.5644, 1e-5);
        QVERIFY_NEAR(found.equalSlopes->p, 0.000454, 1e-6);
        QVERIFY_NEAR(*found.pairs.front().crossover, 166.0, 1e-9);
        QVERIFY_NEAR(found.pairs.front().crossoverInterval->lo, 119.74, 5e-3);
        QVERIFY_NEAR(found.pairs.front().crossoverInterval->hi, 216.88, 5e-3);
        QCOMPARE(found.at, 175.0);
    }
    void
    withoutMountsPointsAreTheUnits() { // methods F.1: pooling all 24 points gives p = 2.95e-6 with ν = 20
        SweepOptions options;
        options.mountsKnown = false;
        const Lines found = sweepLines(ds2(), options);
        QCOMPARE(found.df, 20.0);
        QVERIFY_REL(found.equalSlopes->p, 2.95e-6, 2e-3);
        // The slope's standard error by hand: s/√Sxx, Sxx = 3 · 12500
        const double half = found.lines[0].slopeInterval->hi - found.lines[0].slope;
        const double half2 = found.lines[1].slopeInterval->hi - found.lines[1].slope;
        QVERIFY_REL(half, half2, 1e-12);
    }
    void parallelLinesHaveNoCrossover() {
        std::vector<SweepPoint> points;
        for (int m = 0; m < 6; ++m)
            for (int i = 0; i < 3; ++i)
                points.push_back({{m / 3 + 1, m < 3 ? "A" : "B"},
                                  {m + 1, ""},
                                  100.0 + 50 * i,
                                  10 + 17.0 * i + (m < 3 ? 0 : 2) + 0.1 * ((m * 7 + i * 3) % 5)});
        const Lines found = sweepLines(points);
        QVERIFY(!found.pairs.front().crossover && !found.pairs.front().crossoverInterval);
    }
    void hingeOfTorque() { // methods F.3
        SweepOptions options;
        options.margin = 0.3;
        const auto points = settings({.2, .3, .4, .5, .6, .7, .8, .9, 1.0, 1.2},
                                     {30.3, 28.7, 27.4, 25.9, 24.9, 24.6, 24.8, 24.5, 24.7, 24.6});
        const SweepResponse found = sweepResponses(points, ResponseModel::hinge, options).responses.front();
        QCOMPARE(found.model, ResponseModel::hinge);
        QVERIFY_NEAR(found.knee, 0.58391, 5e-6);
        QVERIFY_NEAR(found.plateau, 24.68333, 5e-6);
        QVERIFY_NEAR(found.height, 14.5, 1e-5);
        QVERIFY_NEAR(*found.smallest, 0.5632, 5e-5);
        QVERIFY_NEAR(found.smallestInterval->lo, 0.5401, 5e-5);
        QVERIFY_NEAR(found.smallestInterval->hi, 0.6018, 5e-5);
        QVERIFY(*found.recommended > *found.smallest && *found.recommended < found.smallestInterval->hi);
        QVERIFY_NEAR(found.at(0.2), 24.68333 + 14.5 * (0.58391 - 0.2), 1e-4);
    }
    void decayOfAmount() { // methods F.4
        SweepOptions options;
        options.margin = 0.5;
        const auto points =
            settings({25, 50, 75, 100, 150, 200, 300, 400}, {33.9, 30.1, 27.5, 26.3, 24.9, 24.5, 24.2, 24.3});
        const SweepResponse found =
            sweepResponses(points, ResponseModel::exponential, options).responses.front();
        QVERIFY_NEAR(found.knee, 47.7461, 5e-4);
        QVERIFY_NEAR(found.plateau, 24.22907, 5e-5);
        QVERIFY_NEAR(found.height, 16.38263, 5e-4);
        QVERIFY_NEAR(*found.smallest, 166.60, 5e-3);
        QVERIFY_NEAR(found.smallestInterval->lo, 158.06, 5e-3);
        QVERIFY_NEAR(found.smallestInterval->hi, 175.72, 5e-3);
    }
    void whatDoesNotRespondIsConstant() {
        const auto points =
            settings({1, 2, 3, 4, 5, 6, 7, 8}, {20.1, 19.9, 20.0, 20.2, 19.8, 20.1, 19.9, 20.0});
        for (const ResponseModel model : {ResponseModel::hinge, ResponseModel::exponential}) {
            const SweepResponse found = sweepResponses(points, model).responses.front();
            QCOMPARE(found.model, ResponseModel::constant);
            QVERIFY_NEAR(found.plateau, 20.0, 1e-9);
            QCOMPARE(*found.smallest, 1.0);
        }
    }
    void whatIsNoSweepIsRefused() {
        QCOMPARE(refusalOf([] { sweepLines({}); }), QString("sweep-empty"));
        QCOMPARE(refusalOf([] {
                     sweepLines({{{1, "A"}, {1, ""}, 100, 20}, {{1, "A"}, {1, ""}, 100, 21}});
                 }),
                 QString("sweep-no-range"));
    }

    void ewmaOfCheckMounts() { // methods E.5
        HealthOptions options;
        options.sd = 0.3;
        std::vector<CheckValue> values{{1, 24.1}, {6, 24.3}, {11, 24.2}, {16, 24.6}, {21, 24.7}};
        // E.5 takes the first as the centre; here the centre is a mean, so that the data are held against it
        // by hand: λ 0.2, z_i = z + 0.2 (x − z).
        options.baseline = 3;
        const BenchHealth found = judgeHealth(values, options);
        QVERIFY_NEAR(found.centre, 24.2, 1e-12);
        double z = 24.2;
        for (std::size_t i = 0; i < 5; ++i) {
            z += 0.2 * (values[i].value - z);
            QVERIFY_NEAR(found.points[i].ewma, z, 1e-12);
        }
        QVERIFY_NEAR(found.points[0].high - found.centre, 0.162, 1e-9);
        QVERIFY_NEAR(found.points[4].high - found.centre, 0.2551, 5e-5);
        QVERIFY(!found.moved && !found.firstOut);
        QVERIFY_NEAR(found.slope, 0.0300, 5e-5);
        QVERIFY_NEAR(found.slopeInterval.lo, 0.0059, 5e-5);
        QVERIFY_NEAR(found.slopeInterval.hi, 0.0541, 5e-5);
    }
    void ewmaOfTheHandbookOfStatistics() { // NIST e-Handbook 6.3.2.4: target 50, σ 2.0539, λ 0.3, L 3
        const double data[] = {52.0, 47.0, 53.0, 49.3, 50.1, 47.0, 51.0, 50.1, 51.2, 50.5,
                               49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1};
        const double expected[] = {50.60, 49.52, 50.56, 50.18, 50.16, 49.21, 49.75, 49.85, 50.26, 50.33,
                                   50.11, 49.36, 49.52, 50.05, 49.38, 49.92, 50.73, 51.23, 51.94, 51.99};
        double z = 50; // the chart's recursion, as published
        std::vector<CheckValue> values{{0, 50.0}, {0.1, 50.0}};
        for (int i = 0; i < 20; ++i) values.push_back({1.0 + i, data[i]});
        HealthOptions options;
        options.baseline = 2; // two values at the target make it the centre
        options.lambda = 0.3;
        options.limit = 3;
        options.sd = 2.0539;
        const BenchHealth found = judgeHealth(values, options);
        for (std::size_t i = 0; i < 20; ++i) {
            z = 0.3 * data[i] + 0.7 * z;
            QVERIFY_NEAR(found.points[i + 2].ewma, expected[i], 0.0101); // printed to two digits, rounded on
            QVERIFY_NEAR(found.points[i + 2].ewma, z, 1e-9);
        }
        QVERIFY_NEAR(found.points.back().high, 52.5884, 5e-3); // the published, asymptotic limits
        QVERIFY_NEAR(found.points.back().low, 47.4115, 5e-3);
        QVERIFY(!found.moved);
    }
    void aStepIsFoundAndNamed() {
        std::vector<CheckValue> values;
        for (int i = 0; i < 8; ++i)
            values.push_back({10.0 * i, 30 + (i % 2 ? 0.1 : -0.1) + (i > 4 ? 1.0 : 0)});
        const BenchHealth found = judgeHealth(values);
        QCOMPARE(found.baseline, 4);
        QVERIFY(found.moved);
        QCOMPARE(*found.firstOut, 50.0);
        QVERIFY_REL(found.sigma, 0.2 / 1.128, 1e-9);
    }
    void whatIsNoChartIsRefused() {
        const std::vector<CheckValue> five{{1, 1}, {2, 1}, {3, 1}, {4, 2}, {5, 1}};
        QCOMPARE(refusalOf([&] { judgeHealth({five.begin(), five.end() - 1}); }), QString("health-few"));
        QCOMPARE(refusalOf([&] { judgeHealth(five); }), QString("health-no-scatter"));
        HealthOptions options;
        options.lambda = 0;
        QCOMPARE(refusalOf([&] { judgeHealth(five, options); }), QString("health-lambda"));
    }

    void paretoFrontAndBreakpoints() { // methods H
        const std::vector<ValueRow> rows{valueRow("A", 24.24, 2.5926), valueRow("B", 25.43, 0.7292),
                                         valueRow("C", 26.06, 0.1389), valueRow("D", 24.61, 0.6667)};
        const ValueFront found = judgeValue(rows);
        QCOMPARE(found.front, (std::vector<std::size_t>{0, 3, 2}));
        QCOMPARE(*found.rows[1].dominatedBy, std::size_t{3});
        QVERIFY(found.rows[1].clearly);
        QCOMPARE(found.breakpoints.size(), std::size_t{2});
        QVERIFY_NEAR(found.breakpoints[0].weightOnDelta, 0.21259, 5e-5);
        QVERIFY_NEAR(found.breakpoints[1].weightOnDelta, 0.79428, 5e-5);
        QCOMPARE(found.breakpoints[0].from, std::size_t{2});
        QCOMPARE(found.breakpoints[0].to, std::size_t{3});
        QVERIFY_NEAR(found.rows[2].firstShare, 0.2126, 5e-5);
        QVERIFY_NEAR(found.rows[3].firstShare, 0.5817, 5e-5);
        QVERIFY_NEAR(found.rows[0].firstShare, 0.2057, 5e-5);
        QCOMPARE(found.rows[1].firstShare, 0.0);
        QVERIFY(!found.rows[0].score);
    }
    void sharesOfThreeCriteriaAgreeWithTheTriangle() {
        // Three rows, each best at one of three criteria and worst at both others: by symmetry a third each.
        std::vector<ValueRow> rows{valueRow("A", 1, 2), valueRow("B", 2, 1), valueRow("C", 2, 2)};
        const double ease[] = {1, 1, 2};
        for (std::size_t i = 0; i < 3; ++i) rows[i].values[2] = ease[i];
        const ValueFront found = judgeValue(rows, Weights{2, 1, 1, 0, 0, 0});
        double sum = 0;
        for (const ValuedRow& row : found.rows) {
            QVERIFY_NEAR(row.firstShare, 1.0 / 3, 5 * std::sqrt(2.0 / 9 / 200'000));
            sum += row.firstShare;
        }
        QVERIFY_NEAR(sum, 1, 1e-9);
        QVERIFY_NEAR(*found.rows[0].score, 0.5, 1e-12);
        QVERIFY_NEAR(*found.rows[2].score, 0.25, 1e-12);
    }
    void tiesShare() {
        const ValueFront found = judgeValue({valueRow("A", 20, 1), valueRow("B", 20, 1)});
        QCOMPARE(found.rows[0].firstShare, 0.5);
        QCOMPARE(found.front.size(), std::size_t{2});
    }
    void cheaperAndAsCoolWithinItsErrorIsNotClear() {
        const ValueFront found = judgeValue({valueRow("A", 20.5, 2, 0.3), valueRow("B", 20.0, 1, 0.3)});
        QVERIFY(found.rows[0].dominatedBy && !found.rows[0].clearly); // 0.5 < 1.96 · 0.424
        QVERIFY(judgeValue({valueRow("A", 20.9, 2, 0.3), valueRow("B", 20.0, 1, 0.3)}).rows[0].clearly);
    }
    void valueThatMakesNoSenseIsRefused() {
        QCOMPARE(refusalOf([] { judgeValue({}); }), QString("value-empty"));
        QCOMPARE(refusalOf([] {
                     judgeValue({valueRow("A", 1, 1), valueRow("A", 2, 1)});
                 }),
                 QString("value-twice"));
        QCOMPARE(refusalOf([] { judgeValue({valueRow("A", 1, -1)}); }), QString("value-price"));
        QCOMPARE(refusalOf([] { judgeValue({valueRow("A", 1, 1)}, Weights{}); }), QString("value-weight"));
    }
};

IBUKI_TEST(TestSweep)
#include "tst_sweep.moc"
