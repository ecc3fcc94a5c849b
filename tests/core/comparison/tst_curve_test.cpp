// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/comparison/curve_test.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

using Curves = std::vector<std::vector<double>>;

/// Curves that wander: neighbouring points go together, as those of one mount do.
Curves wandering(Random& random, int curves, int points) {
    Curves made;
    for (int c = 0; c < curves; ++c) {
        std::vector<double> curve;
        double at = random.normal();
        for (int p = 0; p < points; ++p) curve.push_back(at = 0.9 * at + 0.4 * random.normal());
        made.push_back(std::move(curve));
    }
    return made;
}

} // namespace

class TestCurveTest : public QObject {
    Q_OBJECT

private slots:
    void onePointIsThePermutationTest() {
        // 1, 2, 3 against 4, 6, 8: of 20 deals, two (it and its mirror) part the values as far.
        const CurveTest test = compareCurves({{1}, {2}, {3}}, {{4}, {6}, {8}}, 0.9);
        QVERIFY_NEAR(test.p, 0.1, 1e-12);
        QVERIFY_NEAR(test.leastP, 0.1, 1e-12);
        QVERIFY_NEAR(test.t[0], -4 / std::sqrt((2.0 + 8.0) / 4 * (2.0 / 3)), 1e-12);
        QCOMPARE(test.firstApart, std::optional<std::size_t>(0));
        QVERIFY(
            !compareCurves({{1}, {2}, {3}}, {{4}, {6}, {8}}, 0.95).firstApart); // too few to find anything
    }

    void firstPointThatStandsOutIsNamed() {
        Random random(3);
        Curves a = wandering(random, 5, 12), b = wandering(random, 5, 12);
        for (auto& curve : b)
            for (std::size_t p = 6; p < 12; ++p) curve[p] += 60;
        const CurveTest test = compareCurves(a, b, 0.95);
        QCOMPARE(test.firstApart, std::optional<std::size_t>(6));
        QVERIFY_NEAR(test.p, 2.0 / 252, 1e-12);
    }

    void manyCurvesAreDrawn() {
        Random random(4);
        const Curves a = wandering(random, 12, 3), b = wandering(random, 12, 3);
        const CurveTest test = compareCurves(a, b, 0.95);
        QVERIFY_NEAR(test.leastP, 2e-4, 1e-12);
        QVERIFY(test.p > 0.001 && test.p <= 1);
    }

    void tooFewCurvesTellNothing() {
        QCOMPARE(compareCurves({{1, 2}}, {{5, 6}, {7, 8}}, 0.95).p, 1.0);
        QCOMPARE(compareCurves({{1}, {1}}, {{1}, {1}}, 0.95).p, 1.0);
    }

    /// No difference: it is found in at most 5 % of 2,000 studies (exact; p ≤ 0.05 has a chance of 12/252 =
    /// 4.76 %), and in 3.3 to 6.2 % here but for one case in a thousand. Point by point it would be 20 % or
    /// more.
    void falseAlarms() {
        Random random(11);
        constexpr int studies = 2'000;
        int found = 0, named = 0, somewhere = 0;
        for (int i = 0; i < studies; ++i) {
            const Curves a = wandering(random, 5, 20), b = wandering(random, 5, 20);
            const CurveTest test = compareCurves(a, b, 0.95);
            found += test.p <= 0.05;
            named += test.firstApart.has_value();
            bool any = false;
            for (double t : test.t) any = any || std::abs(t) > 2.306; // Student, 8 degrees of freedom
            somewhere += any;
        }
        QCOMPARE(found, named);
        const double expected = 12.0 / 252, sd = std::sqrt(expected * (1 - expected) / studies);
        QVERIFY_NEAR(found / static_cast<double>(studies), expected, 3.3 * sd);
        QVERIFY(somewhere > 0.15 * studies);
    }
};

IBUKI_TEST(TestCurveTest)
#include "tst_curve_test.moc"
