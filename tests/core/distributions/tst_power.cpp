// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/distributions/power.h"
#include "support/near.h"
#include "support/test_class.h"

#include <boost/math/distributions/students_t.hpp>

using namespace ibuki;

namespace {

double student(double p, double df) { return boost::math::quantile(boost::math::students_t(df), p); }

double tPower(int n, double d) {
    const double df = 2.0 * n - 2;
    return pairPower(student(0.975, df), df, d * std::sqrt(n / 2.0));
}

} // namespace

class TestPower : public QObject {
    Q_OBJECT
private slots:
    void studentTest() { // J2.15 to J2.17
        QVERIFY_NEAR(tPower(20, 1), 0.868953027724, 1e-9);
        QVERIFY_NEAR(tPower(64, 0.5), 0.801459557922, 1e-9);
        QVERIFY_NEAR(tPower(5, 2), 0.790542377973, 1e-9);
    }
    void varianceTest() { // J2.18, J2.19: exact Poisson–beta mixture
        QVERIFY_NEAR(anovaPower(4, 45, 11.25, 0.05), 0.803986912865, 1e-9);
        QVERIFY_NEAR(anovaPower(4, 5, 5, 0.05), 0.353559423723, 1e-9);
    }
    void requiredForTheVarianceTest() { // E.1, columns F: least favourable for a range of D σ
        const struct {
            double d;
            int four;
            int six;
        } rows[] = {{0.5, 89, 104}, {1, 23, 27}, {1.5, 11, 13}, {2, 7, 8}, {3, 4, 4}};
        for (const auto& row : rows)
            for (const auto& [k, n] : {std::pair{4, row.four}, std::pair{6, row.six}}) {
                QVERIFY(anovaPower(k, n, n * row.d * row.d / 2, 0.05) >= 0.8);
                QVERIFY(anovaPower(k, n - 1, (n - 1) * row.d * row.d / 2, 0.05) < 0.8);
            }
    }
    void equivalence() { // E.1 and J2.20 to J2.23
        const double se7 = 0.3 * std::sqrt(2.0 / 7);
        QVERIFY_NEAR(equivalencePower(0, 0.5, se7, 12, 0.05), 0.80313383, 1e-8);
        // E.1 prints 0.54047308; Simpson's rule with 200 000 steps on the same integral gives this.
        QVERIFY_NEAR(equivalencePower(0.2, 0.5, se7, 12, 0.05), 0.540473058133, 1e-11);
        QVERIFY_NEAR(equivalencePower(0, 0.5, 0.3 * std::sqrt(0.5), 6, 0.05), 0.38395991, 1e-8);
        const auto crossover = [](double cv2, double n) {
            return equivalencePower(std::log(0.95), std::log(1.25),
                                    std::sqrt(std::log(1 + cv2)) * std::sqrt(2 / n), n - 2, 0.05);
        };
        QVERIFY_NEAR(crossover(0.04, 20), 0.8346802, 1e-7);
        QVERIFY_NEAR(crossover(0.0625, 28), 0.8074395, 1e-7);
        QVERIFY_NEAR(crossover(0.09, 40), 0.8158453, 1e-7);
    }
    void equivalenceCannotBeShownByTooFew() {
        QVERIFY(equivalencePower(0, 0.1, 1, 2, 0.05) < 1e-3);
        QVERIFY_NEAR(equivalencePower(0.5, 0.5, 0.001, 50, 0.05), 0.05,
                     1e-6); // at the margin: the level itself
    }
    void agreesWithSimulation() { // 40 000 sets, tolerance 4.5 standard errors: false alarm 1 in 150 000
        Random random(4711);
        constexpr int sets = 40'000;
        constexpr int n = 4;
        const double critical = student(0.975, 2 * n - 2);
        int seen = 0;
        for (int i = 0; i < sets; ++i) {
            double mean[2] = {0, 1.6};
            double ss = 0;
            for (double& m : mean) {
                double x[n];
                double sum = 0;
                for (double& v : x) sum += v = m + random.normal();
                m = sum / n;
                for (double v : x) ss += (v - m) * (v - m);
            }
            const double se = std::sqrt(ss / (2 * n - 2) * 2 / n);
            seen += std::abs(mean[1] - mean[0]) > critical * se ? 1 : 0;
        }
        const double p = tPower(n, 1.6);
        QVERIFY_NEAR(static_cast<double>(seen) / sets, p, 4.5 * std::sqrt(p * (1 - p) / sets));
    }
};
IBUKI_TEST(TestPower)
#include "tst_power.moc"
