// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/plan/pair_chances.h"
#include "core/setup/plan_setup.h"
#include "support/laid.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;
using story::now;

class TestPairChances : public QObject {
    Q_OBJECT

    struct Planned {
        story::Asked asked = story::ask();
        Question question = *firstQuestion(asked.document, asked.study);
        Plan plan = planFor(asked.document, asked.study);
        PowerAnalysis analysis() const { return powerAnalysisOf(asked.document, question, plan, now); }
        ChanceCurves curves() const { return chanceCurves(asked.document, question, plan, analysis()); }
    };

private slots:
    void theCurvesPassThroughThePlan() {
        Planned planned;
        for (const int mounts : {2, 3, 5, 8}) {
            planned.plan.mountsPerLevel = mounts;
            const ChanceCurves curves = planned.curves();
            const double chance = *planned.analysis().chance;
            QCOMPARE(curves.overDifference.size(), std::size_t{61});
            QVERIFY_NEAR(curves.overDifference[20].at, planned.question.margin.value, 1e-12);
            QVERIFY_NEAR(curves.overDifference[20].chance, chance, 1e-12);
            QVERIFY_NEAR(curves.overMounts[static_cast<std::size_t>(mounts - 2)].chance, chance, 1e-12);
        }
    }
    void aDifferenceIsSeenTheBetterTheLargerItIs() {
        Planned planned;
        const ChanceCurves curves = planned.curves();
        for (std::size_t i = 1; i < curves.overDifference.size(); ++i)
            QVERIFY(curves.overDifference[i].chance >= curves.overDifference[i - 1].chance);
        for (std::size_t i = 1; i < curves.overMounts.size(); ++i)
            QVERIFY(curves.overMounts[i].chance > curves.overMounts[i - 1].chance);
        // With no difference there is the false alarm of one pair: below 5 % of all three together.
        QVERIFY(curves.overDifference.front().chance > 0.01 && curves.overDifference.front().chance < 0.05);
    }
    void theFirstNumberThatDoesIsTheOneThatIsNeeded() {
        Planned planned;
        const PowerAnalysis analysis = planned.analysis();
        QVERIFY(analysis.neededMounts.has_value());
        for (const ChancePoint& point : planned.curves().overMounts)
            QCOMPARE(point.chance >= planned.plan.chance, point.at >= *analysis.neededMounts);
    }
    void samenessIsShownTheWorseTheFurtherTheyAreApart() {
        Planned planned;
        planned.question.goal = Goal::equivalence;
        planned.plan.mountsPerLevel = 6;
        const ChanceCurves curves = planned.curves();
        QVERIFY_NEAR(curves.overDifference.front().chance, *planned.analysis().chance, 1e-12);
        for (std::size_t i = 1; i < curves.overDifference.size(); ++i)
            QVERIFY(curves.overDifference[i].chance <= curves.overDifference[i - 1].chance + 1e-9);
        QVERIFY(curves.overDifference[20].chance
                <= 0.05 + 1e-6); // at the margin: the false alarm of the test
    }
};

IBUKI_TEST(TestPairChances)
#include "tst_pair_chances.moc"
