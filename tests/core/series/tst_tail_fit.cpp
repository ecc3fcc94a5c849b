// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/series/tail_fit.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestTailFit : public QObject {
    Q_OBJECT

    static std::vector<double> times(int n, double step) {
        std::vector<double> t;
        for (int i = 0; i < n; ++i) t.push_back(i * step);
        return t;
    }

private slots:
    void workedExample() { // methods A.7
        const std::vector<double> x{52.9, 54.9, 56,   57.3, 58.4, 58.8, 59.5, 59.9,
                                    60.3, 60.7, 61.1, 61.1, 61.2, 61.4, 61.4, 61.6};
        const auto fit = fitTail(times(16, 30), x);
        QVERIFY(fit && fit->identified);
        QVERIFY_NEAR(fit->tau, 135.627, 2e-3);
        QVERIFY_NEAR(fit->asymptote, 61.8842, 1e-4);
        QVERIFY_NEAR(fit->amplitude, 8.92034, 1e-4);
        QVERIFY_NEAR(fit->rss, 0.1739596, 1e-7);
        QVERIFY_NEAR(fit->asymptoteInterval.lo, 61.706, 1e-3); // profile interval
        QVERIFY_NEAR(fit->asymptoteInterval.hi, 62.079, 1e-3);
        QVERIFY_NEAR(fit->remaining, 0.323, 1e-3);
        QVERIFY_NEAR(fit->remainingStandardError, 0.036, 1e-3);
    }
    void firstEightPointsAreHonestOnlyWithTheirInterval() { // methods A.7
        const std::vector<double> x{52.9, 54.9, 56, 57.3, 58.4, 58.8, 59.5, 59.9};
        const auto fit = fitTail(times(8, 30), x);
        QVERIFY(fit.has_value());
        QVERIFY_NEAR(fit->asymptote, 61.55, 0.01);
        QVERIFY_NEAR(fit->asymptoteInterval.lo, 60.63, 0.01);
        QVERIFY_NEAR(fit->asymptoteInterval.hi, 63.04, 0.01);
    }
    void certifiedMisra1a() { // NIST StRD: b1 (1 − e^{−b2 x}) is the tail with A = x_∞ and t₀ = 0
        std::vector<double> x{77.6,  114.9, 141.1, 190.8, 239.9, 289.0, 332.8,
                              378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760.0};
        std::vector<double> y{10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02,
                              44.82, 50.76, 55.05, 61.01, 66.40, 75.47, 81.78};
        // Our model has a free amplitude; the certified residual bounds ours from above.
        const auto fit = fitTail(x, y);
        QVERIFY(fit.has_value());
        QVERIFY(fit->rss <= 0.12455138894 + 1e-9);
    }
    void flatDataAreNotIdentified() {
        Random random(5);
        std::vector<double> x;
        for (int i = 0; i < 200; ++i) x.push_back(60 + 0.2 * random.normal());
        const auto fit = fitTail(times(200, 5), x);
        QVERIFY(!fit || !fit->identified);
    }
    void tooFewPointsGiveNothing() {
        QVERIFY(!fitTail(times(5, 1), std::vector<double>{1, 2, 3, 4, 5}));
        QVERIFY(!fitTail({}, {}));
    }
    void asymptoteIntervalCoversTheTruth() {
        // 200 simulated tails over 3 τ with white noise; the 95 % interval misses Binomial(200, 0.05) times:
        // more than 22 misses has probability below 1e-4.
        Random random(17);
        const auto t = times(120, 5);
        int missed = 0;
        for (int trial = 0; trial < 200; ++trial) {
            std::vector<double> x;
            for (double at : t) x.push_back(62 - 9 * std::exp(-at / 200) + 0.3 * random.normal());
            const auto fit = fitTail(t, x);
            missed += fit && fit->asymptoteInterval.contains(62) ? 0 : 1;
        }
        QVERIFY2(missed <= 22, qPrintable(QString::number(missed)));
        QVERIFY2(missed >= 1, "an interval that never misses is too wide");
    }
};

IBUKI_TEST(TestTailFit)
#include "tst_tail_fit.moc"
