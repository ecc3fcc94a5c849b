// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/reduce/steady.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

class TestSteady : public QObject {
    Q_OBJECT

    struct Series {
        std::vector<double> t;
        std::vector<double> x;
    };
    /// x(t) = 45 − amplitude e^{−t/τ} + slope t + noise, one sample a second.
    static Series series(double lengthS, double amplitude, double tauS, double slopeKPerH, double noise,
                         std::uint64_t seed = 1) {
        Random random(seed);
        Series made;
        for (double t = 0; t < lengthS; ++t) {
            made.t.push_back(t);
            made.x.push_back(45 - amplitude * std::exp(-t / tauS) + slopeKPerH * t / 3600
                             + noise * random.normal());
        }
        return made;
    }
    static Segment whole(const Series& s) { return {0, s.t.size()}; }

private slots:
    void theWindowEndsBeforeTheLoadDoes() {
        const Series s = series(1800, 15, 60, 0, 0.3);
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        QVERIFY(choice.steady && !choice.isShort);
        QVERIFY_NEAR(s.t[choice.window.end - 1], 1794, 1);
    }
    void theWindowIsNeverLongerThanAsked() {
        const Series s = series(7200, 0, 60, 0, 0.3);
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        QVERIFY_NEAR(s.t[choice.window.end - 1] - s.t[choice.window.begin], 1200, 1);
    }
    void theWindowLeavesOutTheRise() { // the mean may be bent by 0.05 K at the most
        for (double tau : {40.0, 80.0, 150.0}) {
            const Series s = series(1500, 12, tau, 0, 0.2);
            const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
            QVERIFY(choice.steady);
            double sum = 0;
            for (std::size_t i = choice.window.begin; i < choice.window.end; ++i) sum += s.x[i];
            QVERIFY_NEAR(sum / double(choice.window.size()), 45, 0.12);
        }
    }
    void nothingSteadyTakesTheLastTwoMinutes() {
        const Series s = series(600, 0, 60, 40, 0.1);
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        QVERIFY(!choice.steady);
        QVERIFY_NEAR(s.t[choice.window.end - 1] - s.t[choice.window.begin], 120, 1);
        QCOMPARE(judgeSteady(s.t, s.x, whole(s), choice, {}).reached, std::optional(false));
    }
    void aShortLoadGivesWhatThereIs() {
        const Series s = series(80, 0, 60, 0, 0.1);
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        QVERIFY(choice.isShort);
        QCOMPARE(choice.window.begin, std::size_t{0});
        const Series tiny = series(2, 0, 60, 0, 0);
        QVERIFY(chooseWindow(tiny.t, tiny.x, whole(tiny), {}).isShort);
        QVERIFY(!judgeSteady(tiny.t, tiny.x, whole(tiny), chooseWindow(tiny.t, tiny.x, whole(tiny), {}), {})
                     .reached);
    }
    void aRisingTailIsToldWithItsAsymptote() {
        const Series s = series(900, 10, 400, 0, 0.1);
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        const Steady steady = judgeSteady(s.t, s.x, whole(s), choice, {});
        QCOMPARE(steady.reached, std::optional(false));
        QVERIFY(steady.asymptoteIntervalK->contains(45));
        QVERIFY(*steady.remainingK > 0.5);
    }
    void aFinishedRiseIsSteady() {
        const Series s = series(2400, 10, 120, 0, 0.3);
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        QCOMPARE(judgeSteady(s.t, s.x, whole(s), choice, {}).reached, std::optional(true));
    }
    void missingSamplesDoNotMatter() {
        Series s = series(1800, 10, 60, 0, 0.2);
        for (std::size_t i = 1000; i < 1100; ++i) s.x[i] = std::nan("");
        const WindowChoice choice = chooseWindow(s.t, s.x, whole(s), {});
        QCOMPARE(judgeSteady(s.t, s.x, whole(s), choice, {}).reached, std::optional(true));
    }
    void everyThresholdCanBeChanged() {
        const Series s = series(1200, 0, 60, 3, 0.05);
        ReduceSettings strict;
        strict.slopeLimitKPerH = 1;
        strict.unidentifiedSlopeLimitKPerH = 1;
        QCOMPARE(judgeSteady(s.t, s.x, whole(s), chooseWindow(s.t, s.x, whole(s), strict), strict).reached,
                 std::optional(false));
        ReduceSettings loose;
        loose.slopeLimitKPerH = 20;
        loose.unidentifiedSlopeLimitKPerH = 20;
        loose.windowBiasK = 5;
        loose.remainingLimitK = 50;
        QCOMPARE(judgeSteady(s.t, s.x, whole(s), chooseWindow(s.t, s.x, whole(s), loose), loose).reached,
                 std::optional(true));
    }
};

IBUKI_TEST(TestSteady)
#include "tst_steady.moc"
