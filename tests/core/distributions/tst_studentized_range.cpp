// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/studentized_range.h"
#include "support/near.h"
#include "support/test_class.h"

#include <boost/math/distributions/students_t.hpp>
#include <limits>

using namespace ibuki;

namespace {
constexpr double infinite = std::numeric_limits<double>::infinity();
}

class TestStudentizedRange : public QObject {
    Q_OBJECT
private slots:
    void quantilesOfTheTable_data() { // methods D.4, to every printed digit
        QTest::addColumn<double>("p");
        QTest::addColumn<int>("k");
        QTest::addColumn<double>("nu");
        QTest::addColumn<double>("q");
        const struct {
            double p;
            int k;
            double nu;
            double q;
        } rows[] = {
            {.95, 2, 2, 6.08486984},        {.95, 3, 2, 8.33078265},        {.95, 4, 3, 6.82452645},
            {.95, 3, 6, 4.33919548},        {.95, 4, 8, 4.52880964},        {.95, 3, 10, 3.87677675},
            {.95, 4, 11, 4.25614336},       {.90, 4, 12, 3.62070822},       {.95, 6, 12, 4.75023145},
            {.95, 4, 16, 4.04609306},       {.95, 5, 20, 4.23185675},       {.95, 8, 24, 4.68375212},
            {.95, 10, 30, 4.82414129},      {.95, 20, 60, 5.24119979},      {.99, 5, 5, 8.42149058},
            {.99, 3, 10, 5.27016154},       {.99, 4, 16, 5.19189817},       {.95, 3, infinite, 3.31449316},
            {.95, 4, infinite, 3.63315957}, {.95, 10, infinite, 4.47412422}};
        for (const auto& row : rows)
            QTest::addRow("p %g k %d nu %g", row.p, row.k, row.nu) << row.p << row.k << row.nu << row.q;
    }
    void quantilesOfTheTable() {
        QFETCH(double, p);
        QFETCH(int, k);
        QFETCH(double, nu);
        QFETCH(double, q);
        QVERIFY_NEAR(studentizedRangeQuantile(p, k, nu), q, 1e-8);
    }
    void rangeOfNormals() {
        QVERIFY_NEAR(studentizedRangeCdf(3.5, 4, infinite), 0.936123666143, 1e-11);
    } // J2.7
    void twoMeansAreTheStudentTest_data() {
        QTest::addColumn<double>("nu");
        for (double nu : {1.0, 2.5, 5.16196, 20.0, 400.0}) QTest::addRow("nu %g", nu) << nu;
    }
    void twoMeansAreTheStudentTest() { // exact identity
        QFETCH(double, nu);
        for (double t : {0.3, 1.0, 2.0, 4.0}) {
            const double student = 2 * boost::math::cdf(boost::math::students_t(nu), t) - 1;
            QVERIFY_NEAR(studentizedRangeCdf(std::sqrt(2.0) * t, 2, nu), student, 1e-10);
        }
    }
    void quantileInvertsTheCdf() {
        for (int k : {3, 7, 30})
            for (double nu : {2.0, 7.3, 55.0})
                for (double p : {0.5, 0.9, 0.999})
                    QVERIFY_NEAR(studentizedRangeCdf(studentizedRangeQuantile(p, k, nu), k, nu), p, 1e-9);
    }
    void theTableAgreesWithTheIntegral() {
        for (int k : {3, 25, 120})
            for (double nu : {1.0, 3.0, 12.5, 300.0}) {
                const StudentizedRangeTable table(k, nu);
                const double middle = studentizedRangeQuantile(0.5, k, nu);
                for (double q = 0.037; q < 40 * middle; q *= 1.17)
                    QVERIFY_NEAR(table(q), studentizedRangeCdf(q, k, nu), 1e-10);
                QCOMPARE(table(0), 0.0);
                QVERIFY(table(1e300) <= 1);
            }
    }
    void isMonotone() {
        double last = 0;
        for (double q = 0.5; q < 10; q += 0.5) {
            const double p = studentizedRangeCdf(q, 5, 9);
            QVERIFY(p > last);
            last = p;
        }
        QCOMPARE(studentizedRangeCdf(0, 5, 9), 0.0);
        QCOMPARE(studentizedRangeCdf(-1, 5, 9), 0.0);
        QVERIFY(studentizedRangeCdf(1e6, 5, 9) <= 1.0);
    }
};

IBUKI_TEST(TestStudentizedRange)
#include "tst_studentized_range.moc"
