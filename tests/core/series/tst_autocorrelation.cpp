// SPDX-License-Identifier: GPL-3.0-or-later
// What residuals of a fit tell of correlated noise, over many simulated series whose noise is known.

#include "core/base/random.h"
#include "core/series/detrend.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestAutocorrelation : public QObject {
    Q_OBJECT

    /// AR(1) noise of standard deviation 1.
    static std::vector<double> noise(std::size_t n, double rho, Random& random) {
        std::vector<double> x(n);
        double e = random.normal();
        for (double& v : x) v = e = rho * e + std::sqrt(1 - rho * rho) * random.normal();
        return x;
    }

private slots:
    void theFitGivesBackWhatItTook_data() {
        QTest::addColumn<double>("rho");
        QTest::addColumn<double>("tau"); ///< of the course that is taken out; 0: a straight line
        QTest::newRow("white, line") << 0.0 << 0.0;
        QTest::newRow("0.8, line") << 0.8 << 0.0;
        QTest::newRow("0.8, slow decay") << 0.8 << 400.0;
        QTest::newRow("0.8, quick decay") << 0.8 << 60.0;
        QTest::newRow("0.9, decay") << 0.9 << 200.0;
    }
    void theFitGivesBackWhatItTook() {
        QFETCH(double, rho);
        QFETCH(double, tau);
        Random random(2031);
        constexpr std::size_t n = 900;
        constexpr int series = 400;
        std::vector<double> t(n);
        for (std::size_t i = 0; i < n; ++i) t[i] = static_cast<double>(i);
        double slow = 0;
        double variance = 0;
        for (int k = 0; k < series; ++k) {
            const auto residuals =
                detrended(t, noise(n, rho, random), tau > 0 ? std::optional(tau) : std::nullopt);
            const auto level = noiseLevel(residuals.values, residuals.course);
            QVERIFY(level.has_value());
            slow += level->sd * level->sd * level->tau / series;
            variance += level->sd * level->sd / series;
        }
        QVERIFY_NEAR(variance, 1, 0.04);
        // Against (1 + ρ)/(1 − ρ) of an AR(1) series: rather too much than too little.
        const double share = slow / ((1 + rho) / (1 - rho));
        QVERIFY2(share > 0.93 && share < 1.2, qPrintable(QString::number(share)));
    }
    void degreesOfFreedomTellHowFarItScatters() { // Var τ̂ = 2 (2M + 1)/n τ², Madras & Sokal 1988
        Random random(7);
        constexpr int series = 400;
        double sum = 0;
        double squares = 0;
        double df = 0;
        for (int k = 0; k < series; ++k) {
            const auto x = noise(1500, 0.8, random);
            const double value = integratedAutocorrelationTime(x);
            sum += value;
            squares += value * value;
            df += noiseLevel(x, {std::vector<double>(x.size(), 1.0)})->df / series;
        }
        const double mean = sum / series;
        const double relative = (squares / series - mean * mean) / (mean * mean);
        QVERIFY_NEAR(relative / (2 / df), 1, 0.35);
    }
    void functionsThatSayTheSameCountOnce() {
        Random random(3);
        const auto x = noise(300, 0.5, random);
        const std::vector<double> one(x.size(), 1.0);
        const auto once = noiseLevel(x, {one});
        const auto twice = noiseLevel(x, {one, one});
        QVERIFY_NEAR(once->sd, twice->sd, 1e-12);
        QVERIFY_NEAR(once->tau, twice->tau, 1e-12);
    }
    void tooLittleTellsNothing() {
        QVERIFY(!noiseLevel(std::vector<double>{1, 2, 1, 2, 1, 2, 1}, {}));
        QVERIFY(!noiseLevel(std::vector<double>(20, 0.0), {}));
    }
};

IBUKI_TEST(TestAutocorrelation)
#include "tst_autocorrelation.moc"
