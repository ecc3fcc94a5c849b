// SPDX-License-Identifier: GPL-3.0-or-later
// Drift against reference values and over simulated mounts. Error rates say how often they would fail by
// chance.

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/series/ageing_threshold.h"
#include "support/near.h"
#include "support/test_class.h"
#include "support/trials.h"

#include <cmath>

using namespace ibuki;

namespace {

AgeingSample oneMount(const std::vector<double>& t, const std::vector<double>& y) {
    std::vector<AgeingReading> readings;
    for (std::size_t i = 0; i < t.size(); ++i) readings.push_back({0, t[i], y[i]});
    return AgeingSample(std::move(readings));
}

/// docs/methods.md, G.1 and G.2.
AgeingSample settling() {
    return oneMount({0, 1, 2, 4, 8, 12, 24, 36, 48, 72},
                    {26.9, 26.6, 26.4, 26.1, 25.7, 25.6, 25.4, 25.3, 25.4, 25.3});
}
AgeingSample rising() {
    return oneMount({0, 100, 250, 500, 750, 1000}, {25.0, 25.4, 25.9, 26.3, 26.7, 26.9});
}

/// Mounts with intercepts of their own, alike courses and independent readings.
struct Truth {
    AgeingModel model = AgeingModel::squareRoot;
    double scale = 0;
    double tau = 1;
    int mounts = 4;
    std::vector<double> times{0, 24, 72, 168, 336, 504, 672};
    double noise = 0.1;
    double slopeSd = 0; ///< of the scale, between mounts, as a share of it

    AgeingSample draw(Random& random) const {
        std::vector<AgeingReading> readings;
        for (int j = 0; j < mounts; ++j) {
            const double start = 25 + 0.5 * random.normal();
            const double own = scale * (1 + slopeSd * random.normal());
            for (const double t : times)
                readings.push_back(
                    {j, t, start + own * ageingShape(model, t, tau) + noise * random.normal()});
        }
        return AgeingSample(std::move(readings));
    }
    double changeAt(double t) const { return scale * ageingShape(model, t, tau); }
};

/// Share of so many trials of which `holds`; fewer of them under sanitizers, where rates are not judged.
template <class Holds> double shareOf(int full, Holds&& holds) {
    const int trials = test::trials(full);
    int held = 0;
    for (int i = 0; i < trials; ++i) held += holds(i) ? 1 : 0;
    return static_cast<double>(held) / trials;
}

} // namespace

class TestAgeing : public QObject {
    Q_OBJECT
private slots:
    void modelsOfOneMount() {
        AgeingOptions options;
        std::erase(options.models, AgeingModel::hyperbolic);
        const AgeingCourse course = ageingCourse(settling(), options);
        const double aicc[] = {-5.9300, -10.1256, -18.2090, -29.8420, -48.8819};
        for (std::size_t i = 0; i < std::size(aicc); ++i) QVERIFY_NEAR(*course.fits[i].aicc, aicc[i], 1e-3);
        const AgeingFit& fit = *course.fit();
        QCOMPARE(fit.model, AgeingModel::exponential);
        QVERIFY_NEAR(fit.weight, 0.99993, 1e-4);
        QVERIFY_NEAR(fit.start + fit.scale, 25.35021, 1e-4);
        QVERIFY_NEAR(-fit.scale, 1.517049, 1e-5);
        QVERIFY_NEAR(std::sqrt(fit.varianceOfScale), 0.04094, 1e-4);
        QVERIFY_NEAR(*fit.tau, 5.71205, 1e-4);
        QVERIFY_NEAR(std::sqrt(fit.varianceOfTau), 0.40976, 1e-4);
        QVERIFY_NEAR(fit.residualSd, 0.046619, 1e-5);
        QVERIFY(hasFlag(course.flags, "drift-one-mount"));
    }
    void settlesWithin() {
        AgeingOptions options;
        std::erase(options.models, AgeingModel::hyperbolic);
        const AgeingCourse course = ageingCourse(settling(), options);
        const auto time = timeToSettle(settling(), course, 0.2);
        QVERIFY(time && time->at && time->interval);
        QVERIFY_NEAR(*time->at, 11.574, 0.002);
        QVERIFY_NEAR(time->interval->lo, 9.728, 0.01); // profile
        QVERIFY_NEAR(time->interval->hi, 13.780, 0.01);
        QVERIFY(!timeToSettle(rising(), ageingCourse(rising()), 0.2));
        const auto wide = timeToSettle(settling(), course, 2.0);
        QVERIFY(wide && wide->at && *wide->at == 0);
    }
    void thresholdOfOneMount() {
        const AgeingCourse course = ageingCourse(rising());
        QCOMPARE(course.fit()->model, AgeingModel::squareRoot);
        QVERIFY_NEAR(course.fit()->scale, 0.0630097, 1e-6);
        QVERIFY_NEAR(std::sqrt(course.fit()->varianceOfScale), 0.0034298, 1e-6);
        const AgeingTime time = timeToThreshold(rising(), course, 2.5);
        QVERIFY_NEAR(*time.at, 1574, 1);
        QVERIFY_NEAR(time.interval->lo, 1188, 1);
        QVERIFY_NEAR(time.interval->hi, 2185, 1);
        QVERIFY(time.beyondReadings && !time.farBeyond);
        QVERIFY(timeToThreshold(rising(), course, 4).farBeyond);
        QVERIFY(!timeToThreshold(rising(), course, 40).at); // behind ten times the span
    }
    void severalMounts() {
        // G.3: the random intercept keeps the mounts apart from the readings
        const double y[4][3] = {
            {26.1, 25.9, 25.8}, {25.4, 25.3, 25.1}, {26.6, 26.4, 26.4}, {25.7, 25.4, 25.4}};
        std::vector<AgeingReading> readings;
        for (int j = 0; j < 4; ++j)
            for (int i = 0; i < 3; ++i) readings.push_back({j, i == 0 ? 0. : i == 1 ? 24. : 100., y[j][i]});
        const AgeingCourse course = ageingCourse(AgeingSample(readings));
        const AgeingFit* linear = course.fit(AgeingModel::linear);
        QVERIFY(linear);
        // a second road: slopes of single mounts, since all were read at the same times
        double slope = 0;
        const double t[3] = {0 - 124.0 / 3, 24 - 124.0 / 3, 100 - 124.0 / 3};
        double tt = 0;
        for (const double at : t) tt += at * at;
        for (const auto& own : y) slope += (t[0] * own[0] + t[1] * own[1] + t[2] * own[2]) / tt / 4;
        QVERIFY_REL(linear->scale, slope, 1e-9);
        QCOMPARE(linear->df, 7.0);
        QVERIFY_NEAR(course.fit(AgeingModel::logarithmic)->mountSd, 0.527, 0.001);
    }
    void unevenMounts() {
        // a mount that was read once tells of the start, not of the change
        Truth truth{AgeingModel::linear, 0.002};
        truth.noise = 0;
        Random random(3);
        auto readings = truth.draw(random).readings();
        readings.push_back({9, 0, 40});
        const AgeingCourse course = ageingCourse(AgeingSample(readings));
        QVERIFY_NEAR(course.fit(AgeingModel::linear)->scale, 0.002, 1e-6);
        QCOMPARE(course.mounts, 5);
    }
    void columnsBeside() {
        // the room's season is taken out: y follows it by 0.3 for each degree
        Truth truth{AgeingModel::linear, 0.002};
        truth.noise = 0.001;
        Random random(4);
        auto readings = truth.draw(random).readings();
        std::vector<double> room;
        for (auto& one : readings) {
            room.push_back(20 + 5 * std::sin(one.t / 100));
            one.y += 0.3 * room.back();
        }
        const AgeingCourse course = ageingCourse(AgeingSample(readings, {room}));
        QCOMPARE(course.fit()->model, AgeingModel::linear);
        QVERIFY_NEAR(course.fit()->scale, 0.002, 2e-5);
    }
    void tooLittle() {
        const AgeingCourse three = ageingCourse(oneMount({0, 24, 100}, {26.1, 25.9, 25.8}));
        QVERIFY(!three.best && hasFlag(three.flags, "drift-few"));
        QVERIFY(!three.changeIntervalAt(100, 0.95));
        QVERIFY(!timeToThreshold(oneMount({0, 24, 100}, {26.1, 25.9, 25.8}), three, 1).at);
        QVERIFY_THROWS_EXCEPTION(InputError, ageingCourse(oneMount({}, {})));
        QVERIFY_THROWS_EXCEPTION(InputError, ageingCourse(oneMount({0, -1}, {1, 2})));
        QVERIFY_THROWS_EXCEPTION(InputError, ageingCourse(oneMount({0, NAN}, {1, 2})));
        const AgeingCourse flat = ageingCourse(oneMount({0, 1, 2, 3, 4, 5}, {25, 25, 25, 25, 25, 25}));
        QCOMPARE(flat.fit()->model, AgeingModel::constant);
        const AgeingCourse same = ageingCourse(oneMount({5, 5, 5, 5, 5}, {1, 2, 3, 2, 1}));
        QCOMPARE(same.fit()->model, AgeingModel::constant);
    }

    /// No change: told as one in at most 5 % (1,000 sets; fails by chance in one of 10⁴ when it is 5 %).
    void falseAlarms_data() {
        QTest::addColumn<int>("mounts");
        QTest::newRow("one") << 1;
        QTest::newRow("four") << 4;
    }
    void falseAlarms() {
        QFETCH(int, mounts);
        Truth truth;
        truth.mounts = mounts;
        Random random(11);
        const double share = shareOf(1'000, [&](int) {
            return ageingCourse(truth.draw(random)).fit()->model != AgeingModel::constant;
        });
        qInfo("told as a change: %.1f %%", 100 * share);
        QVERIFY(test::sanitized || share < 0.05 + 3.7 * std::sqrt(0.05 * 0.95 / 1'000));
    }

    /// A clear course is told as what it is in at least 90 % of 200 (here it is far more).
    void modelChoice_data() {
        QTest::addColumn<int>("model");
        QTest::addColumn<double>("scale");
        QTest::addColumn<double>("tau");
        QTest::newRow("constant") << int(AgeingModel::constant) << 0.0 << 1.0;
        QTest::newRow("linear") << int(AgeingModel::linear) << 0.004 << 1.0;
        QTest::newRow("sqrt") << int(AgeingModel::squareRoot) << 0.1 << 1.0;
        QTest::newRow("log") << int(AgeingModel::logarithmic) << 0.5 << 1.0;
        QTest::newRow("exponential") << int(AgeingModel::exponential) << -2.0 << 60.0;
    }
    void modelChoice() {
        QFETCH(int, model);
        QFETCH(double, scale);
        QFETCH(double, tau);
        Truth truth{static_cast<AgeingModel>(model), scale, tau};
        truth.times = {0, 6, 24, 48, 96, 168, 336, 504, 672};
        truth.noise = 0.05;
        AgeingOptions options;
        std::erase(options.models, AgeingModel::hyperbolic);
        Random random(5);
        const double share = shareOf(
            200, [&](int) { return ageingCourse(truth.draw(random), options).fit()->model == truth.model; });
        qInfo("told right: %.1f %%", 100 * share);
        QVERIFY(test::sanitized || share >= 0.9);
    }

    /// 95 % intervals of the time to a threshold hold the truth in 93 to 97 % of 1,000 series of several
    /// mounts. At 95 % it would fail by chance in 4 of 1,000.
    void thresholdCoverage_data() {
        QTest::addColumn<int>("model");
        QTest::addColumn<double>("scale");
        QTest::addColumn<double>("tau");
        QTest::addColumn<double>("slopeSd");
        QTest::newRow("sqrt") << int(AgeingModel::squareRoot) << 0.1 << 1.0 << 0.0;
        QTest::newRow("linear") << int(AgeingModel::linear) << 0.004 << 1.0 << 0.0;
        QTest::newRow("exponential") << int(AgeingModel::exponential) << 4.0 << 300.0 << 0.0;
        QTest::newRow("slopes of their own") << int(AgeingModel::linear) << 0.004 << 1.0 << 0.15;
    }
    void thresholdCoverage() {
        QFETCH(int, model);
        QFETCH(double, scale);
        QFETCH(double, tau);
        QFETCH(double, slopeSd);
        Truth truth{static_cast<AgeingModel>(model), scale, tau};
        truth.slopeSd = slopeSd;
        truth.mounts = slopeSd > 0 ? 6 : 4;
        truth.times = {0, 24, 72, 168, 336, 504, 672, 1000};
        const double threshold = 2;
        double lo = 1;
        double hi = 1e5;
        while (hi - lo > 1e-6) ((truth.changeAt((lo + hi) / 2) < threshold) ? lo : hi) = (lo + hi) / 2;
        Random random(8);
        int untold = 0;
        const double share = shareOf(1'000, [&](int) {
            const AgeingSample sample = truth.draw(random);
            const AgeingTime time = timeToThreshold(sample, ageingCourse(sample), threshold);
            if (!time.interval) ++untold;
            return time.interval ? time.interval->contains(lo) : time.notBefore && *time.notBefore <= lo;
        });
        qInfo("%.1f h held by %.1f %%, %d without an upper end", lo, 100 * share, untold);
        QVERIFY(test::sanitized || (share >= 0.93 && share <= 0.97));
    }
    void mountsDrawnAnew() {
        Truth truth{AgeingModel::squareRoot, 0.1};
        truth.mounts = 8;
        Random random(9);
        const AgeingSample sample = truth.draw(random);
        const AgeingCourse course = ageingCourse(sample);
        const auto drawn = thresholdOverMounts(sample, course, 2);
        const auto profiled = timeToThreshold(sample, course, 2).interval;
        QVERIFY(drawn && profiled && drawn->contains(400) && profiled->contains(400));
        QVERIFY(drawn->hi - drawn->lo < 2 * (profiled->hi - profiled->lo));
        truth.mounts = 4;
        const AgeingSample few = truth.draw(random);
        QVERIFY(!thresholdOverMounts(few, ageingCourse(few), 2));
    }
};

IBUKI_TEST(TestAgeing)
#include "tst_ageing.moc"
