// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/plan/sample_size.h"
#include "support/near.h"
#include "support/test_class.h"
#include "words/words.h"

using namespace ibuki;

class TestSampleSize : public QObject {
    Q_OBJECT
private slots:
    void tableOfAllPairsAndReference_data() { // methods E.1: n exact, power and half width to 1e-6
        QTest::addColumn<int>("k");
        QTest::addColumn<double>("difference");
        QTest::addColumn<bool>("reference");
        QTest::addColumn<int>("n");
        QTest::addColumn<double>("power");
        QTest::addColumn<double>("halfWidth");
        const struct {
            int k;
            double d;
            bool reference;
            int n;
            double power;
            double half;
        } rows[] = {
            {3, 1, false, 28, 0.909573619, 0.638098822},  {3, 1.5, false, 13, 0.910254452, 0.958732201},
            {3, 2, false, 8, 0.920214236, 1.26028518},    {3, 3, false, 5, 0.968995458, 1.68730513},
            {4, 1, false, 31, 0.906334177, 0.661771638},  {4, 1.5, false, 14, 0.900515769, 1.00315506},
            {4, 2, false, 9, 0.929491216, 1.27720534},    {4, 3, false, 5, 0.956990381, 1.80946783},
            {6, 1, false, 35, 0.902638164, 0.687735750},  {6, 1.5, false, 16, 0.904601262, 1.02955849},
            {6, 2, false, 10, 0.929598370, 1.32128348},   {6, 3, false, 5, 0.937789383, 1.95550897},
            {4, 1.5, true, 13, 0.914640156, 0.951404376}, {4, 2, true, 8, 0.927934690, 1.24151798},
            {4, 3, true, 4, 0.921634354, 1.89707561},     {6, 1.5, true, 14, 0.916537445, 0.969786313},
            {6, 2, true, 8, 0.911140973, 1.30697413},     {6, 3, true, 4, 0.916205504, 1.95261247}};
        for (const auto& row : rows)
            QTest::addRow("k %d D %g %s", row.k, row.d, row.reference ? "reference" : "all pairs")
                << row.k << row.d << row.reference << row.n << row.power << row.half;
    }
    void tableOfAllPairsAndReference() {
        QFETCH(int, k);
        QFETCH(double, difference);
        QFETCH(bool, reference);
        QFETCH(int, n);
        SampleSizeInput input{k, 1, difference};
        if (reference) input.comparison = PlannedComparison::reference;
        const SampleSize size = sampleSize(input);
        QCOMPARE(size.mountsPerGroup, n);
        QCOMPARE(size.totalMounts, k * n);
        QFETCH(double, power);
        QFETCH(double, halfWidth);
        QVERIFY_NEAR(size.achievedPower, power, 1e-6);
        QVERIFY_NEAR(size.halfWidth, halfWidth, 1e-6);
    }
    void tableOfTwoAndEquivalence() { // methods E.1: columns t 80 %, t 90 %, TOST 80 %, TOST 90 %
        const struct {
            double d;
            int t80, t90, same80, same90;
        } rows[] = {{0.5, 64, 86, 70, 88},  {0.75, 29, 39, 32, 40}, {1, 17, 23, 18, 23},
                    {1.25, 12, 15, 12, 15}, {1.5, 9, 11, 9, 11},    {2, 6, 7, 6, 7},
                    {2.5, 4, 5, 4, 5},      {3, 4, 4, 3, 4},        {4, 3, 3, 3, 3}};
        for (const auto& row : rows)
            for (const auto& [power, reported, same] :
                 {std::tuple{0.8, row.t80, row.same80}, std::tuple{0.9, row.t90, row.same90}}) {
                SampleSizeInput input{2, 1, row.d, power, 0.95, PlannedComparison::two};
                QCOMPARE(sampleSize(input).mountsPerGroup, reported);
                input.difference = 0;
                input.margin = row.d;
                QCOMPARE(sampleSize(input).mountsPerGroup, same);
            }
    }
    void halfWidthOfTukey() { // methods E.1: smallest n with a half width of at most D σ
        const struct {
            double d;
            int four, six;
        } rows[] = {{0.5, 54, 66}, {1, 15, 17}, {1.5, 7, 8}, {2, 5, 5}, {3, 3, 3}};
        for (const auto& row : rows)
            for (const auto& [k, n] : {std::pair{4, row.four}, std::pair{6, row.six}}) {
                const SampleSizeInput input{k, 1, 1};
                // The table's half width is q σ/√n, that of an interval for a pair of means.
                QVERIFY(sampleSizeAt(input, n).halfWidth <= row.d);
                QVERIFY(sampleSizeAt(input, n - 1).halfWidth > row.d);
            }
    }
    void scalesWithTheScatter() { // only difference over scatter counts
        const SampleSize a = sampleSize({5, 0.4, 0.8});
        const SampleSize b = sampleSize({5, 0.8, 1.6});
        QCOMPARE(a.mountsPerGroup, b.mountsPerGroup);
        QVERIFY_NEAR(a.achievedPower, b.achievedPower, 1e-12);
        QVERIFY_NEAR(2 * a.halfWidth, b.halfWidth, 1e-12);
    }
    void refusesWhatCannotBe_data() {
        QTest::addColumn<QString>("code");
        QTest::addColumn<QVector<double>>("v"); // groups, sd, difference, power, confidence, margin
        QTest::newRow("one group") << "plan-groups" << QVector<double>{1, 1, 1, 0.9, 0.95, 0};
        QTest::newRow("no scatter") << "plan-scatter" << QVector<double>{3, 0, 1, 0.9, 0.95, 0};
        QTest::newRow("no difference") << "plan-difference" << QVector<double>{3, 1, 0, 0.9, 0.95, 0};
        QTest::newRow("certain") << "plan-power" << QVector<double>{3, 1, 1, 1, 0.95, 0};
        QTest::newRow("confidence 95") << "plan-confidence" << QVector<double>{3, 1, 1, 0.9, 95, 0};
        QTest::newRow("negative margin") << "plan-margin" << QVector<double>{3, 1, 0, 0.9, 0.95, -1};
        QTest::newRow("outside the margin") << "plan-difference" << QVector<double>{3, 1, 2, 0.9, 0.95, 1};
        QTest::newRow("far too fine") << "plan-unreachable" << QVector<double>{3, 100, 0.001, 0.9, 0.95, 0};
    }
    void refusesWhatCannotBe() {
        QFETCH(QString, code);
        QFETCH(QVector<double>, v);
        const SampleSizeInput input{static_cast<int>(v[0]),      v[1], v[2], v[3], v[4],
                                    PlannedComparison::allPairs, v[5]};
        try {
            sampleSize(input);
            QFAIL("nothing was refused");
        } catch (const InputError& error) {
            QCOMPARE(QString::fromStdString(error.code), code);
            QVERIFY(!words::mend(error.message).empty());
        }
    }
};
IBUKI_TEST(TestSampleSize)
#include "tst_sample_size.moc"
