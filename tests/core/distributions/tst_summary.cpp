// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/distributions/summary.h"
#include "core/series/autocorrelation.h"
#include "support/near.h"
#include "support/test_class.h"

#include <boost/math/distributions/normal.hpp>

using namespace ibuki;

class TestSummary : public QObject {
    Q_OBJECT

    /// Lehmer generator, seed 12345, through the inverse normal: methods J2.27.
    static std::vector<double> deterministicAr1() {
        double s = 12345;
        std::vector<double> a;
        for (int i = 0; i < 2000; ++i) {
            s = std::fmod(s * 16807, 2147483647.0);
            const double z = boost::math::quantile(boost::math::normal(), s / 2147483647.0);
            a.push_back(i == 0 ? z / std::sqrt(0.19) : 0.9 * a.back() + z);
        }
        return a;
    }

    /// methods A.6: 20 samples, 10 s apart.
    static std::vector<double> slopeExample() {
        return {62.1, 62.2, 62.0, 62.1, 62.3, 62.2, 62.1, 62.3, 62.4, 62.2,
                62.1, 62.2, 62.4, 62.3, 62.2, 62.3, 62.5, 62.4, 62.3, 62.3};
    }

private slots:
    void certifiedStandardDeviations() { // NIST StRD NumAcc2 and NumAcc4
        std::vector<double> x{1.2};
        std::vector<double> y{10000000.2};
        for (int i = 0; i < 500; ++i) {
            x.insert(x.end(), {1.1, 1.3});
            y.insert(y.end(), {10000000.1, 10000000.3});
        }
        QVERIFY_REL(*sampleSd(x), 0.1, 1e-12);
        QVERIFY_REL(*sampleSd(y), 0.1, 1e-7);
        QVERIFY_NEAR(autocorrelation(x, 1), -0.999, 1e-12);
        QVERIFY_NEAR(autocorrelation(std::vector<double>{10000001, 10000003, 10000002}, 1), -0.5,
                     1e-12); // NumAcc1
    }
    void emptySingleConstant() {
        QVERIFY(std::isnan(mean({})));
        QVERIFY(std::isnan(median({})));
        QVERIFY(!sampleSd(std::vector<double>{1.0}));
        QCOMPARE(*sampleSd(std::vector<double>{3, 3, 3}), 0.0);
        QCOMPARE(autocorrelation(std::vector<double>{3, 3, 3}, 1), 0.0);
        QVERIFY(!meanStandardError(std::vector<double>{1.0}));
        QVERIFY(std::isnan(mean(std::vector<double>{1.0, std::nan("")})));
    }
    void quantileOfTypeSeven() { // methods A.2: instantaneous hottest of the three cores
        const std::vector<double> hottest{70, 71, 75, 71, 73, 71};
        QVERIFY_NEAR(quantile(hottest, 0.95), 74.5, 1e-12);
        QVERIFY_NEAR(quantile(hottest, 0.0), 70, 0);
        QVERIFY_NEAR(quantile(hottest, 1.0), 75, 0);
        QVERIFY_NEAR(median(std::vector<double>{4, 1, 3, 2}), 2.5, 0);
    }
    void neverReordersItsInput() {
        const std::vector<double> x{3, 1, 2};
        median(x);
        QCOMPARE(x, (std::vector<double>{3, 1, 2}));
    }
    void integratedAutocorrelationTimeOfTheReferenceSeries() { // methods J2.28
        QVERIFY_NEAR(integratedAutocorrelationTime(deterministicAr1()), 15.867776, 1e-5);
    }
    void standardErrorOfCorrelatedSamplesIsNotTheNaiveOne() {
        const auto a = deterministicAr1();
        const double naive = *sampleSd(a) / std::sqrt(2000.0);
        QVERIFY_NEAR(*meanStandardError(a), naive * std::sqrt(15.867776), 1e-6);
    }
    void slopeWithAdjustedInterval() { // methods A.6, times in minutes
        std::vector<double> t;
        for (int i = 0; i < 20; ++i) t.push_back(i / 6.0);
        const auto fit = fitSlope(t, slopeExample());
        QVERIFY(fit.has_value());
        QVERIFY_NEAR(fit->slope, 0.08075, 5e-6);
        QVERIFY_NEAR(fit->standardError, 0.02488, 5e-6);
        QVERIFY_NEAR(fit->effectiveN, 18.53, 5e-3);
        QVERIFY_NEAR(fit->interval(0.9).lo, 0.0374, 5e-5);
        QVERIFY_NEAR(fit->interval(0.9).hi, 0.1241, 5e-5);
    }
    void slopeSaysWhenItCannotTell() {
        QVERIFY(!fitSlope(std::vector<double>{1, 2, 3}, std::vector<double>{1, 2, 3}));
        const std::vector<double> sameTime(10, 1.0);
        QVERIFY(!fitSlope(sameTime, sameTime));
    }
};

IBUKI_TEST(TestSummary)
#include "tst_summary.moc"
