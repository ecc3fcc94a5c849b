// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/physics/heat_path.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>
#include <numbers>

using namespace ibuki;

namespace {

HeatPath lidded() { // the lidded example of docs/methods.md H.1
    HeatPath path;
    path.powerW = 150;
    path.ambientC = 25;
    path.coolerKPerW = 0.12;
    path.solids = {{"die", {10, 20}, 0.775, 115}, {"lid", {30, 30}, 2.5, 390}, {"plate", {40, 40}, 3, 390}};
    path.interfaces = {{"die–lid", 4.667}, {"lid–plate", 10}};
    return path;
}

HeatPath bare() {
    HeatPath path;
    path.powerW = 300;
    path.ambientC = 25;
    path.coolerKPerW = 0.10;
    path.solids = {{"die", {25, 25}, 0.775, 115}, {"plate", {60, 60}, 4, 390}};
    path.interfaces = {{"die–plate", 10}};
    return path;
}

/// The series term by term, the slow way: N² of them.
SpreadingTerm bySum(const Extent& source, const Extent& plate, const Slab& slab, double filmW, int n) {
    const double a = source.widthMm / 2, b = source.lengthMm / 2, c = plate.widthMm / 2,
                 d = plate.lengthMm / 2;
    const double k = slab.conductivity / 1000, t = slab.thicknessMm, h = filmW / 1e6;
    const auto phi = [&](double z) {
        const double tanh = std::tanh(z * t);
        return (z + h / k * tanh) / (z * tanh + h / k);
    };
    const double pi = std::numbers::pi;
    SpreadingTerm sum;
    for (int m = 0; m <= n; ++m)
        for (int j = m == 0 ? 1 : 0; j <= n; ++j) {
            const double x = m * pi / c, y = j * pi / d, beta = std::hypot(x, y);
            const double cx = m == 0 ? a / c : 2 * std::sin(a * x) / (c * x);
            const double cy = j == 0 ? b / d : 2 * std::sin(b * y) / (d * y);
            const double mx = m == 0 ? 1 : std::sin(a * x) / (a * x),
                         my = j == 0 ? 1 : std::sin(b * y) / (b * y);
            const double all = cx * cy * phi(beta) / (k * beta * source.areaMm2());
            sum.centreKPerW += all;
            sum.meanKPerW += all * mx * my;
        }
    return sum;
}

} // namespace

class TestHeatPath : public QObject {
    Q_OBJECT

private slots:
    void spreadingOfTheExample() {
        const Slab lid{2.5, 390, 0};
        const SpreadingTerm series = seriesSpreading({10, 20}, {30, 30}, {&lid, 1}, 1e6 / 8000);
        QVERIFY_NEAR(series.meanKPerW, 0.055615, 1e-6);
        QVERIFY_NEAR(series.centreKPerW, 0.080955, 1e-6);
        const SpreadingTerm lee = leeSpreading({10, 20}, {30, 30}, lid, 1e6 / 8000);
        QVERIFY_NEAR(lee.meanKPerW, 0.05642, 5e-6);
        QVERIFY_NEAR(lee.centreKPerW, 0.08756, 5e-6);
    }
    void theSeriesIsTheSumOfItsTerms() {
        for (const auto& [source, plate, thickness, film] :
             {std::tuple{Extent{10, 20}, Extent{30, 30}, 2.5, 8000.0},
              std::tuple{Extent{3, 3}, Extent{40, 60}, 1.0, 500.0},
              std::tuple{Extent{30, 5}, Extent{30, 30}, 0.8, 90'000.0}}) {
            const Slab slab{thickness, 200, 0};
            const SpreadingTerm fast = seriesSpreading(source, plate, {&slab, 1}, 1e6 / film);
            const SpreadingTerm slow = bySum(source, plate, slab, film, 1'500);
            QVERIFY_REL(fast.meanKPerW, slow.meanKPerW, 2e-6); // what 1,500² terms leave out
            QVERIFY_REL(fast.centreKPerW, slow.centreKPerW, 3e-5);
        }
    }
    void layersOnEachOther() { // the exact values of the field's verification cases V2 and V3
        const Slab one{4, 390, 0};
        const double even = (4 / 0.39 + 200) / 1600;
        SpreadingTerm term = seriesSpreading({10, 20}, {40, 40}, {&one, 1}, 200);
        QVERIFY_NEAR(even + term.meanKPerW, 0.196537, 1e-6);
        QVERIFY_NEAR(even + term.centreKPerW, 0.218187, 1e-6);
        const Slab two[]{{2, 115, 10}, {2, 390, 0}};
        term = seriesSpreading({10, 10}, {30, 30}, two, 100);
        const double evenTwo = (2 / 0.115 + 10 + 2 / 0.39 + 100) / 900;
        QVERIFY_NEAR(evenTwo + term.meanKPerW, 0.369728, 1e-6);
        QVERIFY_NEAR(evenTwo + term.centreKPerW, 0.439496, 1e-6);
    }
    void aSourceAsLargeAsThePlateSpreadsNothing() {
        const Slab slab{2, 390, 0};
        QCOMPARE(seriesSpreading({30, 30}, {30, 30}, {&slab, 1}, 100).meanKPerW, 0.0);
        const double nearly = seriesSpreading({29.999, 30}, {30, 30}, {&slab, 1}, 100).meanKPerW;
        QVERIFY(nearly > 0 && nearly < 1e-6);
    }
    void budgetOfTheLiddedChip() { // F1.5, with Lee's form
        const HeatPathSteps steps = solveChain(lidded(), SpreadingForm::lee);
        QVERIFY_NEAR(steps.solids[0].rKPerW, 0.03370, 5e-6);
        QVERIFY_NEAR(steps.interfaces[0].rKPerW, 0.02334, 5.1e-6);
        QVERIFY_NEAR(steps.solids[1].rKPerW, 0.00712, 5e-6);
        QVERIFY_NEAR(*steps.solids[1].spreadingKPerW, 0.05664, 5e-6);
        QVERIFY_NEAR(steps.interfaces[1].rKPerW, 0.01111, 5e-6);
        QVERIFY_NEAR(steps.solids[2].rKPerW, 0.00481, 5e-6);
        QVERIFY_NEAR(*steps.solids[2].spreadingKPerW, 0.01001, 5e-6);
        QVERIFY_NEAR(steps.totalKPerW, 0.26672, 5e-6);
        QVERIFY_NEAR(steps.junctionMeanC, 65.0, 0.05);
        QVERIFY(!steps.solids[0].spreadingKPerW);
        const HeatPathSteps series = solveChain(lidded());
        QVERIFY_NEAR(*series.solids[1].spreadingKPerW, 0.05587, 1e-4); // 0.05589 chained by Lee's base
        QVERIFY_NEAR(*series.solids[2].spreadingKPerW, 0.00941, 5e-6);
    }
    void budgetOfTheBareChip() {
        const HeatPathSteps steps = solveChain(bare(), SpreadingForm::lee);
        QVERIFY_NEAR(*steps.solids[1].spreadingKPerW, 0.04342, 5e-6);
        QVERIFY_NEAR(steps.totalKPerW, 0.17305, 5e-6);
        QVERIFY_NEAR(steps.junctionMeanC, 76.9, 0.05);
    }
    void differencesAddUp() {
        Random random(11);
        for (int i = 0; i < 200; ++i) {
            HeatPath path = lidded();
            path.powerW = 300 * random.uniform();
            path.coolerKPerW = 0.3 * random.uniform();
            path.interfaces[1].covered = random.uniform();
            path.solids[2].size = {20 + 40 * random.uniform(), 20 + 40 * random.uniform()};
            if (i % 2 == 0) path.boardKPerW = 1 + 20 * random.uniform();
            if (i % 3 == 0) path.sides = {{"memory", 2, 40 * random.uniform(), 0.3}};
            const HeatPathSteps steps = solveChain(path);
            double at = path.ambientC + steps.coolerDeltaK;
            for (std::size_t layer = path.solids.size(); layer-- > 0;) {
                QVERIFY_NEAR(steps.solids[layer].coldC, at, 1e-9);
                at += steps.solids[layer].deltaK;
                if (layer > 0) at += steps.interfaces[layer - 1].deltaK;
            }
            QVERIFY_NEAR(at, steps.junctionMeanC, 1e-9);
            const double board = path.boardKPerW ? (at - path.ambientC) / *path.boardKPerW : 0;
            QVERIFY_NEAR(steps.chainW + board, path.powerW, 1e-9);
        }
    }
    void boardIsAParallelPath() {
        HeatPath path = bare();
        const double alone = solveChain(path).totalKPerW;
        path.boardKPerW = 5;
        QVERIFY_NEAR(solveChain(path).totalKPerW, 1 / (1 / alone + 1 / 5.0), 1e-12);
        QVERIFY_NEAR(solveChain(path).chainW, 300 * 5 / (5 + alone), 1e-9);
    }
    void effectiveAreaIsTheSlope() {
        HeatPathSteps steps = solveChain(lidded());
        addEffectiveAreas(lidded(), steps);
        QVERIFY_NEAR(*steps.interfaces[0].effectiveAreaMm2, 200.0,
                     1e-3); // of the die: nothing spreads before it
        HeatPath thicker = lidded();
        thicker.interfaces[1].rMm2KPerW = 10.01;
        const double slope = 0.01 / (solveChain(thicker).totalKPerW - steps.totalKPerW);
        QVERIFY_REL(*steps.interfaces[1].effectiveAreaMm2, slope, 1e-3);
        QVERIFY(*steps.interfaces[1].effectiveAreaMm2 < 900);
        HeatPath off = lidded();
        off.powerW = 0;
        HeatPathSteps cold = solveChain(off);
        addEffectiveAreas(off, cold);
        QVERIFY(!cold.interfaces[0].effectiveAreaMm2);
        QCOMPARE(solveChain(off).junctionMeanC, 25.0);
        QVERIFY_NEAR(solveChain(off).totalKPerW, steps.totalKPerW, 1e-12);
    }
    void bareSharesConductBeside() { // 4.1: 0.8 of 10 mm²K/W, the rest 30 µm of air
        PathInterface joint{"joint", 10, 30, 0.8};
        QVERIFY_NEAR(joint.effectiveMm2KPerW(0.8), 12.47, 0.005);
        QCOMPARE(joint.effectiveMm2KPerW(1), 10.0);
        QCOMPARE(joint.effectiveMm2KPerW(0), 1000.0);
        CoverageMask half{2, 1, {1, 0}};
        joint.mask = half;
        QCOMPARE(joint.coveredShare(), 0.5);
        QCOMPARE(half.mean(0, 0.5, 0, 1), 1.0);
        QCOMPARE(half.mean(0.25, 0.75, 0, 1), 0.5);
        const CoverageMask upper{1, 2, {1, 0}};
        QCOMPARE(upper.mean(0, 1, 0.5, 1), 1.0); // the first row is the upper one
    }
    void siliconByTemperature() { // F1.7
        QVERIFY_NEAR(siliconConductivity(350 - 273.15), 119.3, 0.05);
        QVERIFY_NEAR(siliconConductivity(358 - 273.15), 115.6, 0.05);
        QVERIFY_NEAR(siliconConductivity(373 - 273.15), 109.1, 0.05);
        HeatPath path = lidded();
        path.solids[0].conductivity = 148;
        path.solids[0].isSilicon = true;
        const HeatPathSteps steps = solveChain(path);
        const double mean = 0.5 * (steps.solids[0].hotC + steps.solids[0].coldC);
        QVERIFY_NEAR(steps.solids[0].conductivity, siliconConductivity(mean), 1e-6);
    }
    void leakage() { // F6.4
        HeatPath path;
        path.powerW = 120;
        path.ambientC = 25;
        path.solids = {{"chip", {1000, 1000}, 1e-6, 1e6}};
        path.leakage = Leakage{30, 60, 0.02};
        path.coolerKPerW = 0.30;
        HeatPathSteps steps = solveChain(path);
        QVERIFY_NEAR(steps.junctionMeanC, 72.57, 0.005);
        QVERIFY_NEAR(steps.powerW, 158.6, 0.05);
        path.coolerKPerW = 0.33;
        steps = solveChain(path);
        QVERIFY_NEAR(steps.junctionMeanC, 79.11, 0.005);
        QVERIFY_NEAR(steps.powerW, 164.0, 0.05);
        path.coolerKPerW = 0.434; // it runs away at 0.435
        QVERIFY(!solveChain(path).runaway);
        path.coolerKPerW = 0.436;
        QVERIFY(solveChain(path).runaway);
    }
    void partsBesideTheChipWarmIt() {
        HeatPath path = bare();
        const double alone = solveChain(path).junctionMeanC;
        path.sides = {{"memory", 1, 30, 0.5}};
        const HeatPathSteps steps = solveChain(path);
        const double plate = 4 / (0.39 * 3600);
        QVERIFY_NEAR(steps.junctionMeanC - alone, 30 * (0.10 + plate), 1e-9);
        QVERIFY_NEAR(steps.sides[0].partC, 25 + 330 * (0.10 + plate) + 30 * 0.5, 1e-9);
    }
    void whatCannotBeIsRefused() {
        const auto refused = [](const auto& change) {
            HeatPath path = lidded();
            change(path);
            try {
                solveChain(path);
            } catch (const InputError& error) {
                return error.message.code;
            }
            return std::string("nothing");
        };
        QCOMPARE(refused([](HeatPath& p) { p.solids[1].thicknessMm = 0; }), std::string("heat-path.size"));
        QCOMPARE(refused([](HeatPath& p) { p.solids[1].conductivity = -1; }),
                 std::string("heat-path.conductivity"));
        QCOMPARE(refused([](HeatPath& p) { p.interfaces[1].covered = 1.1; }),
                 std::string("heat-path.coverage"));
        QCOMPARE(refused([](HeatPath& p) { p.interfaces[1].rMm2KPerW = -0.2; }),
                 std::string("heat-path.resistance"));
        QCOMPARE(refused([](HeatPath& p) { p.interfaces.pop_back(); }), std::string("heat-path.alternate"));
        QCOMPARE(refused([](HeatPath& p) {
                     p.sources = {{0, 0, {12, 5}, 10}};
                 }),
                 std::string("heat-path.source-outside"));
        QCOMPARE(refused([](HeatPath& p) {
                     p.sources = {{0, 0, {5, 5}, 151}};
                 }),
                 std::string("heat-path.source-power-sum"));
        QCOMPARE(refused([](HeatPath& p) { p.powerW = std::nan(""); }), std::string("heat-path.power"));
    }
};

IBUKI_TEST(TestHeatPath)
#include "tst_heat_path.moc"
