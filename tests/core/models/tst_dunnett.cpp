// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/normal.h"
#include "core/models/dunnett.h"
#include "support/near.h"
#include "support/test_class.h"

#include <boost/math/distributions/students_t.hpp>
#include <limits>

using namespace ibuki;

namespace {
constexpr double infinite = std::numeric_limits<double>::infinity();

std::vector<double> groups(int m) { return std::vector<double>(static_cast<std::size_t>(m), 5.0); }
} // namespace

class TestDunnett : public QObject {
    Q_OBJECT
private slots:
    void quantilesOfTheTable_data() { // methods D.6, balanced, to every printed digit
        QTest::addColumn<double>("p");
        QTest::addColumn<int>("m");
        QTest::addColumn<double>("nu");
        QTest::addColumn<bool>("twoSided");
        QTest::addColumn<double>("d");
        const struct {
            double p;
            int m;
            double nu;
            bool two;
            double d;
        } rows[] = {{.95, 1, 10, true, 2.22813885},       {.95, 2, 6, true, 2.86275015},
                    {.95, 2, 10, true, 2.56833888},       {.95, 3, 10, true, 2.75899698},
                    {.95, 3, 12, true, 2.68287006},       {.95, 4, 20, true, 2.65102959},
                    {.95, 5, 30, true, 2.65685449},       {.95, 9, infinite, true, 2.68622337},
                    {.99, 3, 12, true, 3.57726505},       {.95, 2, 6, false, 2.33680459},
                    {.95, 2, 10, false, 2.15061383},      {.95, 3, 10, false, 2.33755907},
                    {.95, 3, 12, false, 2.28734205},      {.95, 4, 20, false, 2.30442759},
                    {.95, 9, infinite, false, 2.41701752}};
        for (const auto& row : rows)
            QTest::addRow("p %g m %d nu %g %s", row.p, row.m, row.nu, row.two ? "two" : "one")
                << row.p << row.m << row.nu << row.two << row.d;
    }
    void quantilesOfTheTable() {
        QFETCH(double, p);
        QFETCH(int, m);
        QFETCH(double, nu);
        QFETCH(bool, twoSided);
        QFETCH(double, d);
        QVERIFY_NEAR(dunnettQuantile(p, groups(m), 5, nu, twoSided ? Sides::two : Sides::one), d, 1e-8);
    }
    void unequalGroups() { // J2.12 and DS1 against A
        const std::vector<double> n{4, 4, 3};
        QVERIFY_NEAR(dunnettQuantile(0.95, n, 5, 12), 2.70266377, 1e-8);
        QVERIFY_NEAR(dunnettQuantile(0.95, n, 4, 11), 2.72381753, 1e-8);
        const double se = std::sqrt(0.1820367 / 2);
        QVERIFY_NEAR(1 - dunnettCdf(1.185 / se, n, 4, 11), 0.0062895, 1e-6);
    }
    void oneGroupIsTheStudentTest() { // exact identity
        for (double d : {0.4, 1.3, 2.7})
            QVERIFY_NEAR(dunnettCdf(d, groups(1), 5, 7),
                         2 * boost::math::cdf(boost::math::students_t(7), d) - 1, 1e-12);
    }
    void manyAgainstFew() { // n_i far above n_0: the reference dominates, all comparisons are one
        const std::vector<double> n(3, 5e5);
        QVERIFY_NEAR(dunnettCdf(2, n, 0.001, 20), 2 * boost::math::cdf(boost::math::students_t(20), 2.0) - 1,
                     1e-3);
    }
    void steepProductsAgreeWithAFineSum() { // n_i far above n_0; the inner integral by brute force
        const std::vector<double> n{200, 3000, 50, 1e5, 12};
        auto family = dunnettFamily(n, 1);
        for (const double x : {0.3, 1.0, 2.0}) {
            double sum = 0;
            constexpr double step = 2e-5;
            for (double z = -8.5; z <= 8.5; z += step) {
                double product = normalDensity(z) * step;
                for (const double k : n) {
                    const double lambda = std::sqrt(k / (k + 1));
                    const double root = std::sqrt(1 / (k + 1));
                    product *= normalCdf((lambda * z + x) / root) - normalCdf((lambda * z - x) / root);
                }
                sum += product;
            }
            QVERIFY_NEAR(family.knownSpread(x), sum, 1e-9);
        }
    }
    void isAProbabilityThatGrows() {
        double before = 0;
        for (double d = 0; d < 8; d += 0.5) {
            const double p = dunnettCdf(d, groups(4), 5, 9);
            QVERIFY(p >= before && p <= 1);
            before = p;
        }
    }
};
IBUKI_TEST(TestDunnett)
#include "tst_dunnett.moc"
