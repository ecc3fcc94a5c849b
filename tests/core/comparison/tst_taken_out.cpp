// SPDX-License-Identifier: GPL-3.0-or-later
// What is taken out beside the groups, people who mount, groups put aside, the best of several mounts.

#include "core/base/random.h"
#include "core/comparison/order_statistics.h"
#include "core/comparison/reproducibility.h"
#include "core/comparison/shown_groups.h"
#include "support/near.h"
#include "support/reference_data.h"
#include "support/test_class.h"

#include <array>
#include <cmath>

using namespace ibuki;

namespace {

/// docs/methods.md D.11: two materials, each mount with the room it was measured in.
std::vector<TableRun> covered() {
    const std::array y{24.7, 24.3, 24.1, 23.8, 25.8, 25.2, 25.6, 25.2};
    const std::array x{24.0, 22.6, 22.1, 21.3, 23.8, 22.0, 23.1, 22.4};
    std::vector<TableRun> runs;
    for (std::size_t i = 0; i < y.size(); ++i) {
        TableRun run{i < 4 ? "A" : "B", std::to_string(i), y.at(i)};
        run.covariate = x.at(i);
        runs.push_back(run);
    }
    return runs;
}

RunValue mountOf(std::int64_t level, std::int64_t person, std::int64_t mount, double value) {
    RunValue run;
    run.group = {level, std::to_string(level)};
    run.mount = {mount, std::to_string(mount)};
    run.block = {person, std::to_string(person)};
    run.value = value;
    return run;
}

} // namespace

class TestTakenOut : public QObject {
    Q_OBJECT
private slots:
    void aCovariateIsTakenOutWithItsSlope() { // worked by hand from the normal equations: D.11
        CompareOptions options;
        options.covariate = true;
        const Comparison comparison = compare(covered(), options);
        const PairComparison& pair = comparison.pairs.front();
        QVERIFY_NEAR(*pair.difference, -1.1133, 5e-5);
        QVERIFY_NEAR(*pair.se, 0.04419, 5e-6);
        QVERIFY_NEAR(pair.ci->lo, -1.2269, 5e-5);
        QVERIFY_NEAR(pair.ci->hi, -0.9997, 5e-5);
        QVERIFY_NEAR(comparison.covariate->slope, 0.3436, 5e-5);
        QVERIFY_NEAR(comparison.equalSlopes->f, 0.3965, 5e-5);
        QVERIFY_NEAR(comparison.equalSlopes->p, 0.563, 5e-4);
        QCOMPARE(comparison.equalSlopes->df2, 4.0);
    }
    void withoutItNothingChanges() {
        const Comparison comparison = compare(covered());
        QVERIFY_NEAR(*comparison.pairs.front().difference, -1.225, 1e-12);
        QVERIFY(!comparison.covariate && !comparison.equalSlopes);
    }
    void slopesThatDifferAreFound() {
        auto runs = covered();
        for (TableRun& run : runs) run.value += run.group == "B" ? 2 * (run.covariate - 23) : 0;
        CompareOptions options;
        options.covariate = true;
        QVERIFY(compare(runs, options).equalSlopes->p < 0.001);
    }
    void ownSpreadsDoNotGoWithACovariate() {
        CompareOptions options;
        options.covariate = true;
        options.spread = SpreadModel::welch;
        QVERIFY_THROWS_EXCEPTION(std::exception, compare(covered(), options));
    }
    /// Davies & Goldsmith (1972), table 6.1, yield of dyestuff by batch: s_r² = 2451.25, s_L² = 1764.05.
    void peopleRepeatAndDiffer() {
        const std::array<std::array<double, 5>, 6> yield{{{1545, 1440, 1440, 1520, 1580},
                                                          {1540, 1555, 1490, 1560, 1495},
                                                          {1595, 1550, 1605, 1510, 1560},
                                                          {1445, 1440, 1595, 1465, 1545},
                                                          {1595, 1630, 1515, 1635, 1625},
                                                          {1520, 1455, 1450, 1480, 1445}}};
        std::vector<RunValue> runs;
        for (std::size_t person = 0; person < yield.size(); ++person)
            for (std::size_t i = 0; i < 5; ++i)
                runs.push_back(mountOf(1, static_cast<std::int64_t>(person),
                                       static_cast<std::int64_t>(runs.size()), yield.at(person).at(i)));
        const auto found = reproducibilityOf(runs);
        QVERIFY(found);
        QCOMPARE(found->persons, 6);
        QVERIFY_NEAR(std::pow(found->repeatabilitySd, 2), 2451.25, 1e-6);
        QVERIFY_NEAR(std::pow(found->betweenPersonsSd, 2), 1764.05, 1e-6);
        QVERIFY_NEAR(std::pow(found->reproducibilitySd, 2), 2451.25 + 1764.05, 1e-6);
        QCOMPARE(found->df, 24.0);
    }
    void levelsAreTakenOutOfWhatPeopleDiffer() { // unbalanced; the means over many trials are the truth
        Random random(5);
        double repeat = 0;
        double between = 0;
        constexpr int trials = 4'000;
        for (int trial = 0; trial < trials; ++trial) {
            const std::array person{0.8 * random.normal(), 0.8 * random.normal(), 0.8 * random.normal(),
                                    0.8 * random.normal()};
            std::vector<RunValue> runs;
            for (std::int64_t level = 0; level < 3; ++level)
                for (std::int64_t who = 0; who < 4; ++who)
                    for (std::int64_t i = 0; i < 1 + (level + who) % 3; ++i)
                        runs.push_back(mountOf(level, who, static_cast<std::int64_t>(runs.size()),
                                               10.0 * static_cast<double>(level)
                                                   + person.at(static_cast<std::size_t>(who))
                                                   + 0.5 * random.normal()));
            const auto found = reproducibilityOf(runs);
            repeat += std::pow(found->repeatabilitySd, 2) / trials;
            between += std::pow(found->betweenPersonsSd, 2) / trials;
        }
        QVERIFY_NEAR(repeat, 0.25, 0.005);  // five standard errors
        QVERIFY_NEAR(between, 0.64, 0.045); // the same; cut off at 0 it is a little above
    }
    void onePersonTellsNothing() {
        QVERIFY(!reproducibilityOf({mountOf(1, 1, 1, 40), mountOf(1, 1, 2, 41), mountOf(2, 1, 3, 42)}));
        QVERIFY(!reproducibilityOf({mountOf(1, 1, 1, 40), mountOf(1, 2, 2, 41)})); // nothing is left
    }
    void groupsPutAsideTakeTheirPairsAlong() {
        const Comparison whole = compare(reference::ds1()); // A B C D
        const ShownGroups shown = without(whole, {whole.groups[1].id});
        QCOMPARE(shown.comparison.groups.size(), std::size_t{3});
        QCOMPARE(shown.comparison.pairs.size(), std::size_t{3});
        for (std::size_t i = 0; i < whole.pairs.size(); ++i) {
            const PairComparison& before = whole.pairs[i];
            QCOMPARE(shown.pairs[i].has_value(), before.a != 1 && before.b != 1);
            if (!shown.pairs[i]) continue;
            const PairComparison& after = shown.comparison.pairs[*shown.pairs[i]];
            QCOMPARE(shown.comparison.groups[after.a].name, whole.groups[before.a].name);
            QCOMPARE(shown.comparison.groups[after.b].name, whole.groups[before.b].name);
            QCOMPARE(after.ci->lo, before.ci->lo); // still of the whole family
        }
        QCOMPARE(without(whole, {}).comparison.tiers, whole.tiers);
    }
    void theBestIsToldForEqualNumbersOnly() {
        QVERIFY(!bestOf(compare(reference::ds1()))); // 4 4 4 3
        const Comparison equal = compare({{"A", "1", 24.0},
                                          {"A", "2", 24.4},
                                          {"A", "3", 24.2},
                                          {"B", "4", 25.0},
                                          {"B", "5", 25.4},
                                          {"B", "6", 25.2}});
        const auto best = bestOf(equal);
        QCOMPARE(best->mounts, 3);
        QVERIFY_NEAR(best->bias, 0.846284 * *equal.pooledSd, 1e-5); // c_3, Harter 1961
    }
};

IBUKI_TEST(TestTakenOut)
#include "tst_taken_out.moc"
