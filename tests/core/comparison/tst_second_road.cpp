// SPDX-License-Identifier: GPL-3.0-or-later
// The comparison of random designs against the same model written out as one matrix and solved by QR.

#include "core/base/random.h"
#include "core/comparison/compare.h"
#include "core/distributions/distributions.h"
#include "support/near.h"
#include "support/test_class.h"

#include <Eigen/Dense>
#include <map>
#include <set>

using namespace ibuki;

namespace {

struct Made {
    std::vector<RunValue> runs;
    CompareOptions options;
};

/// One run a mount; every group in at least two blocks, so that all of it can be told.
Made madeUp(Random& random, bool blocks, bool drift, bool covariate) {
    Made made;
    made.options.blocks = blocks;
    made.options.drift = drift;
    made.options.covariate = covariate;
    const int groups = 2 + static_cast<int>(3 * random.uniform());
    int order = 0;
    for (int g = 0; g < groups; ++g) {
        const int mounts = 4 + static_cast<int>(4 * random.uniform());
        for (int m = 0; m < mounts; ++m) {
            RunValue run;
            run.group = {g + 1, "G" + std::to_string(g)};
            run.mount = {100 * g + m + 1, "M" + std::to_string(m)};
            const int block = m < 2 ? m : static_cast<int>(3 * random.uniform());
            run.block = {block + 1, "evening " + std::to_string(block)};
            run.order = ++order + 40 * random.uniform();
            run.covariate = 20 + 5 * random.uniform();
            run.value = 40 + g + 2.0 * block + 0.05 * run.order + 0.3 * run.covariate + random.normal();
            made.runs.push_back(run);
        }
    }
    return made;
}

/// A column a group, a column a block but the first, and the lines; nothing of the program's own.
struct Written {
    Eigen::MatrixXd x;
    Eigen::VectorXd y;
    Eigen::Index groups = 0;

    Eigen::VectorXd solution() const { return x.colPivHouseholderQr().solve(y); }
    double rss() const { return (y - x * solution()).squaredNorm(); }
    Eigen::MatrixXd unscaled() const { return (x.transpose() * x).inverse(); }
    double df() const { return static_cast<double>(x.rows() - x.cols()); }
    Written without(Eigen::Index from, Eigen::Index count) const { // columns put into one that is constant
        Written less = *this;
        less.x.resize(x.rows(), x.cols() - count + 1);
        less.x.col(0).setOnes();
        for (Eigen::Index c = 0, to = 1; c < x.cols(); ++c)
            if (c < from || c >= from + count) less.x.col(to++) = x.col(c);
        return less;
    }
};

Written written(const Made& made) {
    std::set<std::int64_t> groups, blocks;
    for (const RunValue& run : made.runs) {
        groups.insert(run.group.id);
        if (made.options.blocks) blocks.insert(run.block.id);
    }
    const auto g = static_cast<Eigen::Index>(groups.size());
    const auto b = blocks.empty() ? 0 : static_cast<Eigen::Index>(blocks.size()) - 1;
    Written out;
    out.groups = g;
    out.x = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(made.runs.size()),
                                  g + b + (made.options.drift ? 1 : 0) + (made.options.covariate ? 1 : 0));
    out.y.resize(out.x.rows());
    for (Eigen::Index i = 0; i < out.x.rows(); ++i) {
        const RunValue& run = made.runs[static_cast<std::size_t>(i)];
        out.y(i) = run.value;
        out.x(i, run.group.id - 1) = 1;
        Eigen::Index column = g;
        for (const std::int64_t block : blocks)
            if (block != *blocks.begin()) out.x(i, column++) = run.block.id == block ? 1 : 0;
        if (made.options.drift) out.x(i, column++) = run.order;
        if (made.options.covariate) out.x(i, column++) = run.covariate;
    }
    return out;
}

} // namespace

class TestSecondRoad : public QObject {
    Q_OBJECT

    static void designs() {
        QTest::addColumn<bool>("blocks");
        QTest::addColumn<bool>("drift");
        QTest::addColumn<bool>("covariate");
        for (int mask = 0; mask < 8; ++mask)
            QTest::addRow("%s%s%s.", mask & 1 ? "blocks " : "", mask & 2 ? "order " : "",
                          mask & 4 ? "covariate" : "")
                << bool(mask & 1) << bool(mask & 2) << bool(mask & 4);
    }
    template <class Check> static void forRandomDesigns(std::uint64_t seed, Check check) {
        QFETCH(bool, blocks);
        QFETCH(bool, drift);
        QFETCH(bool, covariate);
        Random random(seed);
        for (int trial = 0; trial < 25; ++trial) {
            const Made made = madeUp(random, blocks, drift, covariate);
            check(made, compare(made.runs, made.options), written(made));
            if (QTest::currentTestFailed()) return;
        }
    }

private slots:
    void differencesAndTheirErrors_data() { designs(); }
    void differencesAndTheirErrors() {
        forRandomDesigns(11, [](const Made&, const Comparison& found, const Written& model) {
            const Eigen::VectorXd solution = model.solution();
            const Eigen::MatrixXd unscaled = model.unscaled();
            const double variance = model.rss() / model.df();
            QVERIFY_REL(found.pooledSd.value(), std::sqrt(variance), 1e-9);
            QCOMPARE(found.df, model.df());
            for (const PairComparison& pair : found.pairs) {
                const Eigen::Index a = found.groups[pair.a].id - 1;
                const Eigen::Index b = found.groups[pair.b].id - 1;
                QVERIFY_NEAR(pair.difference.value(), solution(a) - solution(b), 1e-9);
                const double se =
                    std::sqrt(variance * (unscaled(a, a) + unscaled(b, b) - 2 * unscaled(a, b)));
                QVERIFY_REL(pair.se.value(), se, 1e-8);
            }
        });
    }
    void theTestOfTheGroupsIsWhatResidualsGrowWithoutThem_data() { designs(); }
    void theTestOfTheGroupsIsWhatResidualsGrowWithoutThem() {
        forRandomDesigns(12, [](const Made&, const Comparison& found, const Written& model) {
            const double df1 = static_cast<double>(model.groups) - 1;
            const double f =
                (model.without(0, model.groups).rss() - model.rss()) / df1 / (model.rss() / model.df());
            QVERIFY(found.anova.has_value());
            QVERIFY_REL(found.anova->f, f, 1e-7);
            QVERIFY_NEAR(found.anova->p, fisherUpper(f, df1, model.df()), 1e-9);
        });
    }
    void linesAndTheirIntervals_data() { designs(); }
    void linesAndTheirIntervals() {
        forRandomDesigns(13, [](const Made& made, const Comparison& found, const Written& model) {
            QCOMPARE(found.drift.has_value(), made.options.drift);
            QCOMPARE(found.covariate.has_value(), made.options.covariate);
            const Eigen::VectorXd solution = model.solution();
            const Eigen::MatrixXd unscaled = model.unscaled();
            const auto check = [&](const Drift& line, Eigen::Index column) {
                QVERIFY_NEAR(line.slope, solution(column), 1e-9);
                const double half = studentQuantile(0.975, model.df())
                                    * std::sqrt(model.rss() / model.df() * unscaled(column, column));
                QVERIFY_NEAR(line.ci.hi, solution(column) + half, 1e-8);
                QVERIFY_NEAR(line.ci.lo, solution(column) - half, 1e-8);
            };
            Eigen::Index last = model.x.cols() - 1;
            if (found.covariate) check(*found.covariate, last--);
            if (found.drift) check(*found.drift, last);
        });
    }
    void shiftedAndStretchedValuesChangeNothingElse_data() { designs(); }
    void shiftedAndStretchedValuesChangeNothingElse() { // another zero and another unit
        forRandomDesigns(14, [](const Made& made, const Comparison& found, const Written&) {
            Made other = made;
            for (RunValue& run : other.runs) run.value = 273.15 + 1.8 * run.value;
            other.options.margin *= 1.8;
            const Comparison changed = compare(other.runs, other.options);
            QCOMPARE(changed.pairs.size(), found.pairs.size());
            for (std::size_t i = 0; i < found.pairs.size(); ++i) {
                QVERIFY_NEAR(changed.pairs[i].difference.value(), 1.8 * found.pairs[i].difference.value(),
                             1e-9);
                QVERIFY_NEAR(changed.pairs[i].pAdjusted.value(), found.pairs[i].pAdjusted.value(), 1e-7);
                QCOMPARE(changed.pairs[i].verdict, found.pairs[i].verdict);
                QCOMPARE(changed.pairs[i].furtherMounts, found.pairs[i].furtherMounts);
            }
            QCOMPARE(changed.tiers, found.tiers);
        });
    }
};

IBUKI_TEST(TestSecondRoad)
#include "tst_second_road.moc"
