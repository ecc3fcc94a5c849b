// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/heat/bursts.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

HeatPath liddedAt150W() {
    HeatPath path;
    path.powerW = 150;
    path.ambientC = 25;
    path.coolerKPerW = 0.12;
    path.solids = {{"die", {10, 20}, 0.775, 115, false, 1.659},
                   {"lid", {30, 30}, 2.5, 390},
                   {"plate", {40, 40}, 3, 390}};
    path.interfaces = {{"die–lid", 4.667}, {"lid–plate", 10}};
    return path;
}

} // namespace

class TestBursts : public QObject {
    Q_OBJECT

private slots:
    void ladderHasTheCapacitiesAndTheWholeOfTheChain() {
        // Worked capacities: die 0.257, lid of 30 × 30 × 2.5 mm 7.74 J/K.
        const auto nodes = ladderOf(liddedAt150W(), 540);
        QCOMPARE(nodes.size(), std::size_t{4});
        QVERIFY_NEAR(nodes[0].capacityJPerK, 0.257, 5e-4);
        QVERIFY_NEAR(nodes[1].capacityJPerK, 7.74, 5e-3);
        double total = 0;
        for (const LadderNode& node : nodes) total += node.toNextKPerW;
        QVERIFY_REL(total, chainSteps(liddedAt150W()).totalKPerW, 1e-12);
    }
    void longLoadEndsWhereTheChainIs() {
        BurstPattern pattern;
        pattern.lengthS = 20'000;
        const BurstCurves curves = burstCurves(liddedAt150W(), 540, pattern);
        const double end = 25 + 150 * chainSteps(liddedAt150W()).totalKPerW;
        QVERIFY_NEAR(curves.longEndC, end, 1e-9);
        QVERIFY_NEAR(curves.longC.back(), end, 0.01);
        QVERIFY(curves.withinKelvinS);
        // One time constant left: (ΣC·R_cooler) ln(a/1 K), within a fifth.
        QVERIFY_REL(*curves.withinKelvinS, (540 + 16.5) * 0.12 * std::log(130 * 0.12), 0.2);
    }
    void burstsStayBelowAndRiseToTheirOwnLevel() {
        const BurstCurves curves = burstCurves(liddedAt150W(), 540, {});
        for (std::size_t i = 0; i < curves.timeS.size(); ++i)
            QVERIFY(curves.burstsC[i] <= curves.longC[i] + 1e-9);
        QVERIFY(curves.lastPeakC > curves.firstPeakC);
        QVERIFY(curves.lastPeakC < curves.longEndC);
        // Mean of the cooler in the long run: that of the mean power.
        const double meanW = (30 * 150.0 + 60 * 20) / 90;
        QVERIFY(curves.lastPeakC > 25 + meanW * 0.12);
    }
    void aLoopHoldsItsHeadStartLonger() {
        BurstPattern pattern;
        pattern.lengthS = 20'000;
        const auto air = burstCurves(liddedAt150W(), capacityJPerK(CoolerMass::air), pattern);
        const auto loop = burstCurves(liddedAt150W(), capacityJPerK(CoolerMass::loop), pattern);
        const auto large = burstCurves(liddedAt150W(), capacityJPerK(CoolerMass::largeLoop), pattern);
        QVERIFY(*air.withinKelvinS < *loop.withinKelvinS && *loop.withinKelvinS < *large.withinKelvinS);
        QVERIFY(air.firstPeakC > loop.firstPeakC);
        QVERIFY_NEAR(air.longEndC, loop.longEndC, 1e-9);
    }
    void withoutPauseABurstIsTheLongLoad() {
        BurstPattern pattern;
        pattern.offS = 0;
        pattern.lengthS = 120;
        const auto curves = burstCurves(liddedAt150W(), 540, pattern);
        QVERIFY_NEAR(curves.burstsC.back(), curves.longC.back(), 1e-9);
        QVERIFY(!curves.withinKelvinS);
    }
    void whatCannotBeIsRefused() {
        BurstPattern none, inverted, endless;
        none.onS = 0;
        inverted.lowW = 200;
        endless.lengthS = 1e9;
        for (const BurstPattern& pattern : {none, inverted, endless}) try {
                (void)burstCurves(liddedAt150W(), 540, pattern);
                QFAIL("not refused");
            } catch (const InputError& error) {
                QCOMPARE(error.code, std::string("bursts-pattern"));
            }
    }
};

IBUKI_TEST(TestBursts)
#include "tst_bursts.moc"
