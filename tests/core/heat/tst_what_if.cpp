// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/what_if.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

BenchPath liddedBench() {
    BenchPath bench;
    HeatPath& path = bench.path;
    path.powerW = 150;
    path.ambientC = 25;
    path.coolerKPerW = 0.12;
    path.solids = {{"die", {10, 20}, 0.775, 115}, {"lid", {30, 30}, 2.5, 390}, {"plate", {40, 40}, 3, 390}};
    path.interfaces = {{"die–lid", 4.667}, {"lid–plate", 10}};
    bench.places = {{{}, LayerKind::chip, 0, {}},
                    {{}, LayerKind::interface, {}, 0},
                    {{}, LayerKind::lid, 1, {}},
                    {{}, LayerKind::interface, {}, 1},
                    {{}, LayerKind::plate, 2, {}}};
    bench.studied = 1;
    return bench;
}

BenchPath bareCpu() {
    BenchPath bench;
    HeatPath& path = bench.path;
    path.powerW = 200;
    path.ambientC = 25;
    path.coolerKPerW = 0.1;
    path.solids = {{"die", {20, 20}, 0.775, 115}, {"plate", {20, 20}, 4, 390}};
    path.interfaces = {{"die–plate", 10}};
    bench.studied = 0;
    return bench;
}

} // namespace

class TestWhatIf : public QObject {
    Q_OBJECT

private slots:
    void asItStandsChangesNothing() {
        const BenchPath bench = liddedBench();
        const ChangedPath same = changed(bench, asItStands(bench));
        QCOMPARE(same.studied, std::size_t{1});
        QVERIFY(same.hasLid);
        QVERIFY_NEAR(chainSteps(same.path).junctionMeanC, chainSteps(bench.path).junctionMeanC, 1e-12);
    }
    void withoutItsLidTheJointLiesOnTheChip() {
        const BenchPath bench = liddedBench();
        WhatIf what = asItStands(bench);
        what.lidOff = true;
        what.studiedMm2KPerW = 8;
        const ChangedPath off = changed(bench, what);
        QCOMPARE(off.path.solids.size(), std::size_t{2});
        QCOMPARE(off.studied, std::size_t{0});
        QCOMPARE(off.path.interfaces[0].name, std::string("lid–plate"));
        QVERIFY_NEAR(chainSteps(off.path).interfaces[0].rKPerW, 8 / 200.0, 1e-12);
    }
    void sliders() { // each of them moves the chip the way it should
        const BenchPath bench = liddedBench();
        const WhatIf base = asItStands(bench);
        const auto rise = [&](auto change) {
            WhatIf what = base;
            change(what);
            const ChangedPath path = changed(bench, what);
            return chainSteps(path.path).junctionMeanC - path.path.ambientC;
        };
        const double now = rise([](WhatIf&) {});
        QVERIFY_NEAR(rise([](WhatIf& w) { w.powerW *= 2; }), 2 * now, 1e-9);
        QVERIFY_NEAR(rise([](WhatIf& w) { w.ambientC += 7; }), now, 1e-9);
        const double cooler = rise([](WhatIf& w) { w.coolerKPerW += 0.01; }) - now;
        QVERIFY(cooler > 1.5 && cooler < 1.65); // 150 W × 0.01 K/W, and the heat spreads a little wider
        QVERIFY(rise([](WhatIf& w) { w.studiedMm2KPerW = 20; }) > now);
        QVERIFY(rise([](WhatIf& w) { w.covered = 0.7; }) > now);
        QVERIFY(rise([](WhatIf& w) { w.chipScale = 1.3; }) < now);
        QVERIFY(rise([](WhatIf& w) { w.chipThicknessMm = 0.4; }) < now);  // an even chip: thinner is better
        QVERIFY(rise([](WhatIf& w) { w.plateThicknessMm = 0.5; }) > now); // too thin to spread
    }
    void lidOffOrABetterCooler() {
        const auto found = lidOrCooler(liddedBench(), asItStands(liddedBench()));
        QVERIFY(found);
        QVERIFY_NEAR(found->withLidK[0], chainSteps(liddedBench().path).junctionMeanC - 25, 1e-9);
        QVERIFY(found->withLidK[2] < found->withLidK[0] && found->withoutK[2] < found->withoutK[0]);
        QVERIFY(!lidOrCooler(bareCpu(), asItStands(bareCpu())));
    }
    void aHotCoreHasItsOwnBestThickness() { // 2.4: by finite volumes 0.2, thinnest, about 1 and about 0.35 mm
        const std::vector<double> thicknesses{0.1, 0.2, 0.3, 0.4, 0.775, 1.0};
        const auto best = [&](double joint, double core) {
            BenchPath bench;
            bench.path.powerW = 100;
            bench.path.coolerKPerW = 1 / (7614 * 900e-6);
            bench.path.solids = {{"die", {12, 12}, 0.775, 115}, {"lid", {30, 30}, 2.5, 390}};
            bench.path.interfaces = {{"die–lid", joint}};
            bench.studied = 0;
            const auto curve = hotCoreCurve(bench, asItStands(bench), core, 0.5, thicknesses);
            return std::min_element(curve.begin(), curve.end(),
                                    [](const auto& a, const auto& b) { return a.coreK < b.coreK; })
                ->thicknessMm;
        };
        QCOMPARE(best(4.67, 2), 0.2);
        QCOMPARE(best(4.67, 4), 0.1);
        QVERIFY(best(10, 2) >= 0.775);
        QVERIFY(best(10, 4) >= 0.2 && best(10, 4) <= 0.4);
        QVERIFY(hotCoreCurve(bareCpu(), asItStands(bareCpu()), 20, 0.5, thicknesses).empty());
    }
    void placesFollowALidThatComesOff() {
        const BenchPath bench = liddedBench();
        WhatIf what = asItStands(bench);
        what.lidOff = true;
        const ChangedPath off = changed(bench, what);
        QCOMPARE(off.places.size(), std::size_t{3});
        QCOMPARE(off.places[0].solid, std::optional<std::size_t>(0));
        QCOMPARE(off.places[1].interface, std::optional<std::size_t>(0));
        QCOMPARE(off.places[2].solid, std::optional<std::size_t>(1));
    }
    void leakageIsAPartOfWhatWasMeasured() {
        const BenchPath bench = liddedBench();
        WhatIf what = asItStands(bench);
        const double as = chainSteps(changed(bench, what).path).junctionMeanC;
        what.leakageW = 20;
        const HeatPathSteps same = chainSteps(changed(bench, what).path);
        QVERIFY_NEAR(same.junctionMeanC, as, 1e-6); // it was in the power all the time
        QVERIFY_NEAR(same.powerW, bench.path.powerW, 1e-6);
        what.coolerKPerW *= 1.5;
        const HeatPathSteps worse = chainSteps(changed(bench, what).path);
        QVERIFY_NEAR(worse.powerW, 130 + 20 * std::exp(0.02 * (worse.junctionMeanC - as)), 1e-4);
        WhatIf without = what;
        without.leakageW = 0;
        QVERIFY(worse.junctionMeanC > chainSteps(changed(bench, without).path).junctionMeanC);
        what.leakageW = 120;
        what.coolerKPerW = 0.5;
        QVERIFY(chainSteps(changed(bench, what).path).runaway);
    }
    void forceThinsTheJoint() {
        BenchPath bench = liddedBench();
        WhatIf what = asItStands(bench);
        what.force = 2;
        QCOMPARE(changed(bench, what).path.interfaces[1].rMm2KPerW,
                 10.0); // nothing is known of what lies there
        bench.studiedClass = MaterialClass::paste;
        QVERIFY_NEAR(changed(bench, what).path.interfaces[1].rMm2KPerW,
                     10 * (1 - 8.75 / 11.25 * (1 - std::pow(2, -0.166))), 1e-9);
    }
    void resolves() { // F1.6: 1 K at 200 W on a bare die of 400 mm² is 2 mm²·K/W
        const Resolution found = resolutionOf(bareCpu(), asItStands(bareCpu()));
        QVERIFY_NEAR(found.now, 2.0, 1e-6);
        QVERIFY_NEAR(found.morePower, 2.0 / 1.5, 1e-6);
        QVERIFY(!found.withoutLid);
        QVERIFY_NEAR(found.strongerCooler, 2.0, 1e-6); // its silicon conducts the same at any temperature
        const Resolution lid = resolutionOf(liddedBench(), asItStands(liddedBench()));
        QVERIFY(lid.now > 4 && lid.now < 6 && *lid.withoutLid < lid.now);
    }
    void carriesADifferenceOver() {
        OtherStack other;
        other.path = bareCpu().path;
        const auto found = carryOver(bareCpu(), asItStands(bareCpu()), 14, 10, Interval{2, 6}, other);
        QVERIFY_NEAR(found.here, 2.0, 1e-9); // 4 mm²·K/W × 200 W / 400 mm²
        QVERIFY_NEAR(found.there, found.here, 1e-9);
        QVERIFY_NEAR(found.thereCi->lo, 1.0, 1e-9);
        QVERIFY_NEAR(found.thereCi->hi, 3.0, 1e-9);
        for (const OtherStack& stack : otherStacks()) {
            const auto there = carryOver(liddedBench(), asItStands(liddedBench()), 14, 10, {}, stack);
            QVERIFY(there.there > 0 && !there.thereCi);
        }
    }
};

IBUKI_TEST(TestWhatIf)
#include "tst_what_if.moc"
