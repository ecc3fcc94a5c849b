// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/models/anova.h"
#include "support/near.h"
#include "support/reference_data.h"
#include "support/test_class.h"

using namespace ibuki;

class TestAnova : public QObject {
    Q_OBJECT
private slots:
    void certifiedSiRstv() { // NIST StRD
        const auto anova = oneWayAnova(reference::siRstv);
        QVERIFY(anova.has_value());
        QVERIFY_REL(anova->test.f, 1.18046237440255, 1e-11);
        QVERIFY_REL(anova->betweenSs, 0.0511462616, 1e-9); // printed digits
        QVERIFY_REL(anova->withinSs, 0.216636560, 1e-9);
        QVERIFY_REL(std::sqrt(anova->pooledVariance), 0.104076068334656, 1e-11);
        QCOMPARE(anova->test.df1, 4.0);
        QCOMPARE(anova->test.df2, 20.0);
    }
    void certifiedAtmWtAg() {
        QVERIFY_REL(oneWayAnova(reference::atmWtAg())->test.f, 15.9467335677930, 1e-7);
    }
    void certifiedSmLs01() { QVERIFY_REL(oneWayAnova(reference::smLs(0))->test.f, 21.0, 1e-12); }
    void certifiedSmLs04WithOffset() { QVERIFY_REL(oneWayAnova(reference::smLs(1e6))->test.f, 21.0, 1e-9); }
    void survivesSmLs07() { // doubles cannot hold these data; the certified 21 is met to 1e-3 all the same
        QVERIFY_REL(oneWayAnova(reference::smLs(1e12))->test.f, 21.0, 1e-3);
    }
    void plantGrowth() { // Dobson 1983
        QVERIFY_REL(oneWayAnova(reference::plantGrowth)->test.f, 4.846088, 1e-6);
        const auto welch = welchAnova(reference::plantGrowth);
        QVERIFY_REL(welch->f, 5.180972, 1e-6);
        QVERIFY_REL(welch->df2, 17.128419, 1e-6);
        QVERIFY_REL(welch->p, 0.01739282, 1e-6);
    }
    void addingAConstantChangesNoTest() {
        Groups moved = reference::plantGrowth;
        for (auto& group : moved)
            for (double& v : group) v += 1000;
        QVERIFY_REL(oneWayAnova(moved)->test.f, oneWayAnova(reference::plantGrowth)->test.f, 1e-10);
        QVERIFY_REL(welchAnova(moved)->f, welchAnova(reference::plantGrowth)->f, 1e-10);
    }
    void saysNothingWithoutDegreesOfFreedom() {
        QVERIFY(!oneWayAnova({}));
        QVERIFY(!oneWayAnova({{1.0, 2.0}}));
        QVERIFY(!oneWayAnova({{1.0}, {2.0}}));
        QVERIFY(!oneWayAnova({{1.0, 2.0}, {}}));
        QVERIFY(!welchAnova({{1.0, 1.0}, {2.0, 3.0}})); // no spread: infinite weight
        QVERIFY(!brownForsytheSpread({{1.0, 1.0}, {2.0, 2.0}}));
    }
};

IBUKI_TEST(TestAnova)
#include "tst_anova.moc"
