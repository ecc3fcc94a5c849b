// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/distributions/rainflow.h"
#include "core/models/survival.h"
#include "core/physics/acceleration.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>
#include <map>

using namespace ibuki;

class TestSurvival : public QObject {
    Q_OBJECT
private slots:
    /// ASTM E1049-85, figure 6: ranges and how often.
    void standardsExample() {
        const std::vector<double> history{-2, 1, -3, 5, -1, 3, -4, 4, -2};
        std::map<double, double> counted;
        for (const CountedCycle& one : rainflow(history)) counted[one.range] += one.count;
        const std::map<double, double> expected{{3, 0.5}, {4, 1.5}, {6, 0.5}, {8, 1.0}, {9, 0.5}};
        QVERIFY(counted == expected);
    }
    /// Ranges add up to the whole way; closed cycles are symmetric.
    void rangesAddUp() {
        Random random(2);
        for (int trial = 0; trial < 200; ++trial) {
            std::vector<double> values(static_cast<std::size_t>(2 + 200 * random.uniform()));
            for (double& value : values) value = 20 * random.normal();
            const auto turns = turningPoints(values);
            double way = 0;
            for (std::size_t i = 1; i < values.size(); ++i) way += std::abs(values[i] - values[i - 1]);
            double counted = 0;
            double most = 0;
            for (const CountedCycle& one : rainflow(turns)) {
                counted += 2 * one.count * one.range;
                most = std::max(most, one.range);
            }
            QVERIFY_REL(counted, way, 1e-9);
            QCOMPARE(turns.front(), values.front());
            QCOMPARE(turns.back(), values.back());
            for (std::size_t i = 2; i < turns.size(); ++i)
                QVERIFY((turns[i] - turns[i - 1]) * (turns[i - 1] - turns[i - 2]) < 0);
            const auto [lo, hi] = std::minmax_element(values.begin(), values.end());
            QVERIFY_REL(most, *hi - *lo, 1e-12);
        }
    }
    void smallReversalsAreNoise() {
        const std::vector<double> values{20, 60, 59.5, 60.2, 25, 25.5, 24.8, 61};
        QVERIFY(turningPoints(values, 2) == (std::vector<double>{20, 60.2, 24.8, 61}));
        QCOMPARE(cyclesOf(rainflow(turningPoints(values, 2)), 30), 1.5);
        QVERIFY(turningPoints({}, 2).empty());
        QVERIFY(rainflow(std::vector<double>{5}).empty());
    }

    /// Clopper & Pearson 1934: 0 of 10 is at most 0.3085; 3 of 10 is 0.0667 to 0.6525.
    void exactShares() {
        QVERIFY_NEAR(shareInterval(0, 10).hi, 0.3085, 1e-4);
        QCOMPARE(shareInterval(0, 10).lo, 0.0);
        QVERIFY_NEAR(shareInterval(3, 10).lo, 0.0667, 1e-4);
        QVERIFY_NEAR(shareInterval(3, 10).hi, 0.6525, 1e-4);
        QCOMPARE(shareInterval(10, 10).hi, 1.0);
    }
    /// Fisher's tea: 3 of 4 against 1 of 4 is 34/70.
    void exactComparison() {
        QVERIFY_NEAR(sameShareP(3, 4, 1, 4), 34.0 / 70, 1e-12);
        QVERIFY_NEAR(sameShareP(4, 4, 0, 4), 2.0 / 70, 1e-12);
        QCOMPARE(sameShareP(0, 5, 0, 7), 1.0);
    }
    /// Freireich et al. 1963, weeks of remission with 6-MP: S(10) = 0.7529, S(23) = 0.4482, median 23.
    void remissions() {
        std::vector<Watched> treated;
        for (const double t : {6, 6, 6, 7, 10, 13, 16, 22, 23}) treated.push_back({t, true});
        for (const double t : {6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35}) treated.push_back({t, false});
        std::vector<Watched> placebo;
        for (const double t : {1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23})
            placebo.push_back({t, true});
        const auto steps = survival(treated);
        QCOMPARE(steps.front().survived, 1 - 3.0 / 21);
        const auto at = [&](double t) {
            for (const auto& step : steps)
                if (step.at == t) return step;
            return SurvivalStep{};
        };
        QVERIFY_NEAR(at(10).survived, 0.7529, 1e-4);
        QVERIFY_NEAR(at(23).survived, 0.4482, 1e-4);
        // Greenwood: se(S(10)) = 0.0963; on ln(−ln S) the interval is 0.5032 to 0.8894
        QVERIFY_NEAR(at(10).interval->lo, 0.503, 1e-3);
        QVERIFY_NEAR(at(10).interval->hi, 0.889, 1e-3);
        QCOMPARE(*medianSurvival(steps), 23.0);
        QCOMPARE(*medianSurvival(survival(placebo)), 8.0);
        QVERIFY(*sameSurvivalP(treated, placebo) < 1e-4); // log-rank χ² = 16.8
        QVERIFY(!medianSurvival(survival({{5, false}, {6, false}})));
        QVERIFY(!sameSurvivalP({{5, false}}, {{6, false}}));
    }
    /// Intervals of a survived share hold it in about 95 % (500 sets of 40; by chance outside of 91 to 98.5 %
    /// in less than 1 of 1,000).
    void survivalCoverage() {
        Random random(21);
        int held = 0;
        const double truth = std::exp(-0.5);
        for (int trial = 0; trial < 500; ++trial) {
            std::vector<Watched> watched;
            for (int i = 0; i < 40; ++i) {
                const double fails = -std::log(random.uniform());
                const double leaves = 2 * random.uniform();
                watched.push_back({std::min(fails, leaves), fails <= leaves});
            }
            std::optional<Interval> last;
            for (const auto& step : survival(watched))
                if (step.at <= 0.5) last = step.interval;
            held += last && last->contains(truth) ? 1 : 0;
        }
        QVERIFY(held >= 455 && held <= 493);
    }

    /// physics.md F7.4 to F7.6 (JEDEC JEP122; Norris & Landzberg 1969).
    void acceleration() {
        QVERIFY_NEAR(arrheniusFactor(0.7, {70}, {125}), 26.3, 0.05);
        QVERIFY_NEAR(arrheniusFactor(0.5, {70}, {125}), 10.3, 0.05);
        QVERIFY_NEAR(arrheniusFactor(1.0, {70}, {125}), 106.9, 0.2);
        QVERIFY_NEAR(coffinMansonFactor(2, {40}, {100}), 6.25, 1e-9);
        const Cycling use{{40}, 6, {75}};
        const Cycling test{{100}, 48, {125}};
        QVERIFY_NEAR(norrisLandzbergFactor({}, use, test), 4.75, 0.005);
        UseAndTest asked;
        asked.by = WearBy::solderSwings;
        asked.use = use;
        asked.test = test;
        const auto made = testFor(asked, 4749.0 / 6 / 365.25);
        QVERIFY(made);
        QVERIFY_REL(made->testCycles, 1'000, 1e-3);
        QVERIFY_REL(made->testDays, 1'000.0 / 48, 1e-3);
        asked.by = WearBy::heat;
        const auto heat = testFor(asked, 1);
        QVERIFY_REL(heat->testDays * 24 * heat->factor, 365.25 * 8, 1e-12);
        asked.test.hottest = {60}; // milder than the use
        QVERIFY(!testFor(asked, 1));
        QVERIFY(!testFor(asked, 0));
    }
};

IBUKI_TEST(TestSurvival)
#include "tst_survival.moc"
