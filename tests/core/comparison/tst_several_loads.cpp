// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/several_loads.h"

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/distributions/distributions.h"
#include "support/near.h"
#include "support/test_class.h"

#include <Eigen/Dense>

using namespace ibuki;

namespace {

LoadRun runOf(int group, int mount, int load, double value) {
    RunValue run;
    run.group = {group, std::string(1, static_cast<char>('A' + group))};
    run.mount = {100 * group + mount, "m" + std::to_string(mount)};
    run.value = value;
    return {run, {load, "load " + std::to_string(load)}};
}

/// Every mount under every load, once.
std::vector<LoadRun> madeUp(Random& random, const std::vector<int>& mounts, int loads, double turn = 0) {
    std::vector<LoadRun> runs;
    for (std::size_t g = 0; g < mounts.size(); ++g)
        for (int m = 0; m < mounts[g]; ++m) {
            const double own = random.normal();
            for (int l = 0; l < loads; ++l)
                runs.push_back(runOf(static_cast<int>(g), m, l,
                                     40 + 8 * l + static_cast<double>(g) * (1 + turn * l) + own
                                         + 0.3 * random.normal() + 0.2 * l * own));
        }
    return runs;
}

/// Rows mount by mount, columns loads: written out from the runs as madeUp lays them.
struct Table {
    Eigen::MatrixXd values;
    std::vector<int> group;
};

Table tableOf(const std::vector<LoadRun>& runs, int loads) {
    Table table;
    table.values.resize(static_cast<Eigen::Index>(runs.size()) / loads, loads);
    for (std::size_t i = 0; i < runs.size(); ++i) {
        table.values(static_cast<Eigen::Index>(i) / loads, static_cast<Eigen::Index>(i) % loads) =
            runs[i].run.value;
        if (i % static_cast<std::size_t>(loads) == 0)
            table.group.push_back(static_cast<int>(runs[i].run.group.id));
    }
    return table;
}

/// Residual sum of squares on mounts and loads, with or without group × load, by QR.
double rss(const Table& table, int groups, bool interaction) {
    const auto mounts = table.values.rows(), loads = table.values.cols();
    Eigen::MatrixXd x =
        Eigen::MatrixXd::Zero(mounts * loads, mounts + (interaction ? groups * loads : loads));
    Eigen::VectorXd y(mounts * loads);
    for (Eigen::Index m = 0; m < mounts; ++m)
        for (Eigen::Index l = 0; l < loads; ++l) {
            const Eigen::Index row = m * loads + l;
            x(row, m) = 1;
            x(row, mounts + (interaction ? table.group[static_cast<std::size_t>(m)] * loads + l : l)) = 1;
            y(row) = table.values(m, l);
        }
    Eigen::CompleteOrthogonalDecomposition<Eigen::MatrixXd> solved(x);
    return (y - x * solved.solve(y)).squaredNorm();
}

/// Greenhouse and Geisser's ε of Helmert's contrasts: tr(M)²/((l − 1) tr(M²)), M the covariance within
/// groups.
double epsilonOf(const Table& table, int groups) {
    const auto loads = table.values.cols();
    Eigen::MatrixXd helmert = Eigen::MatrixXd::Zero(loads, loads - 1);
    for (Eigen::Index c = 0; c + 1 < loads; ++c) {
        helmert.col(c).head(c + 1).setConstant(1);
        helmert(c + 1, c) = -static_cast<double>(c + 1);
        helmert.col(c).normalize();
    }
    Eigen::MatrixXd scores = table.values * helmert;
    for (int g = 0; g < groups; ++g) {
        Eigen::RowVectorXd sum = Eigen::RowVectorXd::Zero(loads - 1);
        double count = 0;
        for (Eigen::Index m = 0; m < scores.rows(); ++m)
            if (table.group[static_cast<std::size_t>(m)] == g) sum += scores.row(m), ++count;
        for (Eigen::Index m = 0; m < scores.rows(); ++m)
            if (table.group[static_cast<std::size_t>(m)] == g) scores.row(m) -= sum / count;
    }
    const Eigen::MatrixXd spread = scores.transpose() * scores;
    return spread.trace() * spread.trace() / (static_cast<double>(loads - 1) * (spread * spread).trace());
}

} // namespace

class TestSeveralLoads : public QObject {
    Q_OBJECT
private slots:
    void theInteractionIsThatOfTheWholeModel() {
        Random random(11);
        for (int round = 0; round < 30; ++round) {
            const int loads = 2 + round % 4;
            std::vector<int> mounts{2 + round % 3, 3};
            if (round % 2) mounts.push_back(2);
            const auto runs = madeUp(random, mounts, loads, 0.2 * (round % 3));
            const SeveralLoads found = compareLoads(runs, {});
            const Table table = tableOf(runs, loads);
            const int groups = static_cast<int>(mounts.size());
            const double df1 = (groups - 1) * (loads - 1);
            const double df2 = static_cast<double>(table.values.rows() - groups) * (loads - 1);
            const double larger = rss(table, groups, true);
            QVERIFY(found.interaction);
            QCOMPARE(found.interaction->test.df1, df1);
            QCOMPARE(found.interaction->test.df2, df2);
            const double f = (rss(table, groups, false) - larger) / df1 / (larger / df2);
            QVERIFY_NEAR(found.interaction->test.f, f, 1e-8 * (1 + f));
            QCOMPARE(found.interaction->pGg.has_value(), loads > 2);
            if (loads == 2) continue;
            const double epsilon = epsilonOf(table, groups);
            QVERIFY(epsilon <= 1 + 1e-12 && epsilon >= 1.0 / (loads - 1) - 1e-12);
            QVERIFY_NEAR(*found.interaction->pGg, fisherUpper(f, epsilon * df1, epsilon * df2), 1e-9);
        }
    }
    /// Two groups, two loads: Student's test of how much the loads differ.
    void ofTwoLoadsItIsTheTestOfDifferences() {
        Random random(12);
        const auto runs = madeUp(random, {4, 3}, 2, 0.5);
        std::vector<RunValue> differences;
        for (std::size_t i = 0; i < runs.size(); i += 2) {
            differences.push_back(runs[i].run);
            differences.back().value = runs[i + 1].run.value - runs[i].run.value;
        }
        const PairComparison pair = compare(differences, {}).pairs.front();
        const SeveralLoads found = compareLoads(runs, {});
        QVERIFY_NEAR(found.interaction->test.f, std::pow(*pair.difference / *pair.se, 2), 1e-8);
        QVERIFY_NEAR(found.interaction->test.p, *pair.pAdjusted, 1e-10);
    }
    void eachLoadIsComparedByItself() {
        Random random(13);
        auto runs = madeUp(random, {3, 3, 2}, 3);
        runs.push_back(runOf(0, 0, 1, 48)); // a repeat inside mount and load
        CompareOptions options;
        options.confidence = 0.9;
        const SeveralLoads found = compareLoads(runs, options);
        QCOMPARE(found.grid.size(), 9UL);
        for (int l = 0; l < 3; ++l) {
            std::vector<RunValue> here;
            for (const LoadRun& run : runs)
                if (run.load.id == l) here.push_back(run.run);
            const Comparison by = compare(here, options);
            const auto& judged = found.perLoad[static_cast<std::size_t>(l)].comparison;
            for (std::size_t i = 0; i < by.pairs.size(); ++i)
                QCOMPARE(judged->pairs[i].ci->lo, by.pairs[i].ci->lo);
            for (std::size_t g = 0; g < 3; ++g) {
                const LoadCell& cell = found.grid[3 * static_cast<std::size_t>(l) + g];
                QCOMPARE(*cell.mean, *by.groups[g].mean);
                QCOMPARE(cell.ci->hi, by.groups[g].ci->hi);
                QCOMPARE(cell.mounts, by.groups[g].mounts);
            }
        }
        QCOMPARE(found.completeMounts, 8);
        QCOMPARE(found.means.groups.front().runs, 3); // a mean a mount
    }
    void whoLacksALoadIsLeftOutOfWhatIsOverAll() {
        Random random(14);
        auto runs = madeUp(random, {3, 3}, 2);
        const auto whole = compareLoads(runs, {});
        runs.push_back(runOf(1, 7, 0, 99)); // under the first load only
        const auto found = compareLoads(runs, {});
        QCOMPARE(found.completeMounts, 6);
        QCOMPARE(found.interaction->test.f, whole.interaction->test.f);
        QCOMPARE(found.means.pairs.front().ci->lo, whole.means.pairs.front().ci->lo);
        QVERIFY(hasFlag(found.means.flags, "incomplete-mounts"));
        QVERIFY(!hasFlag(whole.means.flags, "incomplete-mounts"));
        QCOMPARE(found.grid[1].mounts, 4); // counted where it was measured
    }
    void groupsAtTheLimitAreLeftOutOfWhatIsOverAll() {
        Random random(15);
        auto runs = madeUp(random, {3, 3, 3}, 2);
        for (LoadRun& run : runs)
            if (run.run.group.id == 2 && run.load.id == 1) run.run.censored = true;
        const auto found = compareLoads(runs, {});
        QCOMPARE(found.means.groups.size(), 2UL);
        QCOMPARE(found.completeMounts, 6);
        QVERIFY(hasFlag(found.means.flags, "limit-bound"));
        QVERIFY(!found.grid[5].mean); // the third under the second load
        QVERIFY(found.grid[2].mean);
    }
    void anOrderThatTurnsIsTold() {
        std::vector<LoadRun> runs;
        for (int m = 0; m < 4; ++m)
            for (int l = 0; l < 3; ++l) {
                runs.push_back(runOf(0, m, l, 40 + 0.1 * m + (l == 2 ? 5 : 0)));
                runs.push_back(runOf(1, m, l, 42 + 0.1 * m));
            }
        const auto found = compareLoads(runs, {});
        QCOMPARE(found.orderChanges.size(), 2UL); // loads 0 and 2, 1 and 2
        QCOMPARE(found.orderChanges[0].aBetter.name, std::string("load 0"));
        QCOMPARE(found.orderChanges[0].bBetter.name, std::string("load 2"));
        CompareOptions higher;
        higher.lowerIsBetter = false;
        QCOMPARE(compareLoads(runs, higher).orderChanges[0].aBetter.name, std::string("load 2"));
        CompareOptions held;
        held.reference = 1;
        const auto against = compareLoads(runs, held);
        QCOMPARE(against.orderChanges.size(), 2UL);
        QVERIFY(!against.perLoad[0].comparison->tiers.size());
    }
    void aLoadOfOneGroupHasNoTests() {
        Random random(16);
        auto runs = madeUp(random, {2, 2}, 1);
        runs.push_back(runOf(0, 0, 5, 50));
        // Only one group has a mount with both.
        QVERIFY_THROWS_EXCEPTION(InputError, compareLoads(runs, {}));
        for (int m = 0; m < 2; ++m) runs.push_back(runOf(1, m, 5, 51 + m));
        runs.push_back(runOf(0, 1, 5, 50.5));
        QCOMPARE(compareLoads(runs, {}).completeMounts, 4);
    }
    void aPriorActsOnEachLoadAndOnTheMeans() {
        std::vector<LoadRun> runs{runOf(0, 0, 0, 40), runOf(0, 0, 1, 50), runOf(1, 0, 0, 43),
                                  runOf(1, 0, 1, 54)};
        QVERIFY_THROWS_EXCEPTION(InputError, compareLoads(runs, {}));
        CompareOptions options;
        options.prior = KnownScatter{0.8, 4, {}};
        const auto found = compareLoads(runs, options);
        QVERIFY(found.perLoad[0].comparison && found.perLoad[1].comparison);
        QVERIFY_NEAR(*found.means.pairs.front().difference, -3.5, 1e-12);
        QVERIFY_NEAR(*found.means.pairs.front().se, 0.8 * std::sqrt(2), 1e-12);
        QVERIFY(!found.interaction); // no mount beside another
    }
    /// No interaction: at 0.05 it is found in 5 of 100. 2,000 tables: beyond ± 0.02 by chance in 1 of 25,000.
    void theInteractionHoldsItsLevel() {
        Random random(17);
        int found = 0;
        for (int table = 0; table < 2'000; ++table) {
            std::vector<LoadRun> runs;
            for (int g = 0; g < 3; ++g)
                for (int m = 0; m < 3; ++m) {
                    const double own = random.normal();
                    for (int l = 0; l < 3; ++l)
                        runs.push_back(runOf(g, m, l, 10 * l + g + own + 0.3 * random.normal()));
                }
            CompareOptions options;
            options.tellP = false;
            options.mostFurtherMounts = 0;
            found += compareLoads(runs, options).interaction->test.p < 0.05 ? 1 : 0;
        }
        QVERIFY_NEAR(found / 2'000.0, 0.05, 0.02);
    }
    void aLargeOffsetCostsNoDigits() {
        Random random(18);
        auto runs = madeUp(random, {3, 3}, 3, 0.3);
        const double f = compareLoads(runs, {}).interaction->test.f;
        for (LoadRun& run : runs) run.run.value += 1e6;
        QVERIFY_NEAR(compareLoads(runs, {}).interaction->test.f, f, 1e-6 * f);
    }
};

IBUKI_TEST(TestSeveralLoads)
#include "tst_several_loads.moc"
