// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reduce/budget.h"
#include "support/near.h"
#include "support/test_class.h"
#include "words/words.h"

using namespace ibuki;

namespace {

/// One material, ΔT = 48 K at 150 W, four mounts (docs/methods.md, "Uncertainty budget", worked example).
BudgetInput worked() {
    BudgetInput input;
    input.deltaK = 48;
    input.mountSdK = 0.4267;
    input.mounts = 4;
    input.mountDf = 11;
    input.chipAccuracyK = 1.0;
    input.chipResolutionK = 1.0;
    input.ambientAccuracyK = 0.5;
    input.ambientResolutionK = 0.1;
    input.ambientGradientK = 0.5;
    input.powerShare = 0.02;
    return input;
}

const BudgetLine* lineOf(const Budget& budget, const std::string& source) {
    for (const BudgetLine& line : budget.lines)
        if (line.code == source) return &line;
    return nullptr;
}

} // namespace

class TestBudget : public QObject {
    Q_OBJECT
private slots:
    void theWorkedExampleComesOut() {
        const Budget budget = uncertaintyBudget(worked());
        QCOMPARE(budget.lines.size(), std::size_t{7});
        QVERIFY_NEAR(lineOf(budget, "re-mounting")->contributionK, 0.2133, 1e-4);
        QVERIFY_NEAR(lineOf(budget, "chip-offset")->contributionK, 0.5774, 1e-4);
        QVERIFY_NEAR(lineOf(budget, "chip-steps")->contributionK, 0.2887, 1e-4);
        QVERIFY_NEAR(lineOf(budget, "room-steps")->contributionK, 0.0289, 1e-4);
        QVERIFY_NEAR(lineOf(budget, "power-scale")->contributionK, 0.5543, 1e-4);
        QVERIFY_NEAR(lineOf(budget, "power-scale")->share, 0.328, 1e-3);
        QVERIFY_NEAR(budget.combinedK, 0.9679, 2e-4);
        QVERIFY_NEAR(*budget.df, 4662, 5);
        QVERIFY_NEAR(budget.coverage, 1.960, 1e-3);
        QVERIFY_NEAR(budget.expandedK, 1.90, 5e-3);
    }
    void theGuidesExampleGivesItsEffectiveFreedom() {
        // JCGM 100:2008 H.1: 25, 9.7, 2.9, 16.6 nm with 18, 25.6, 50, 2 degrees of freedom.
        std::vector<BudgetLine> lines;
        for (const auto& [u, df] : {std::pair{25.0, 18.0}, {9.7, 25.6}, {2.9, 50.0}, {16.6, 2.0}}) {
            BudgetLine line;
            line.u = u;
            line.df = df;
            lines.push_back(line);
        }
        const Budget budget = combined(lines);
        QVERIFY_NEAR(budget.combinedK, 31.6711, 1e-4);
        QVERIFY_NEAR(*budget.df, 16.8, 0.1);
        QVERIFY_NEAR(budget.coverage, 2.119905, 1e-6); // Student, 0.975, 16
    }
    void whatCancelsIsLeftOutOfADifference() {
        const Budget budget = uncertaintyBudget(worked());
        const double partly = 0.5 * (1.0 / 12 + 0.25 / 3);
        QVERIFY_NEAR(budget.staysK, std::sqrt(0.2133 * 0.2133 + partly), 1e-3);
        QVERIFY(budget.staysK < budget.combinedK / 2);
        QCOMPARE(lineOf(budget, "chip-offset")->cancels, Cancels::yes);
        QCOMPARE(lineOf(budget, "re-mounting")->cancels, Cancels::no);
        double shares = 0;
        for (const BudgetLine& line : budget.lines) {
            shares += line.share;
            QVERIFY(words::text(sourceOf(line)) != sourceOf(line).code);
            QVERIFY(words::text(whyOf(line)) != whyOf(line).code);
        }
        QVERIFY_NEAR(shares, 1, 1e-12);
    }
    void withoutAnyFigureNothingIsClaimed() {
        const Budget budget = uncertaintyBudget({});
        QVERIFY(budget.lines.empty());
        QCOMPARE(budget.combinedK, 0.0);
        QVERIFY(!budget.df);
    }
};

IBUKI_TEST(TestBudget)
#include "tst_budget.moc"
