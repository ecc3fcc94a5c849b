// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/heat/calibration_draws.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

/// A bare chip: R″ follows K/W in a straight line there.
Calibration calibrated(double anchorShare, int mounts) {
    CalibrationInput input;
    input.bench.path.solids = {{"die", {20, 20}, 0.775, 115}, {"plate", {20, 20}, 4, 390}};
    input.bench.path.interfaces = {{"die–plate", 10}};
    input.bench.studied = 0;
    input.anchorMm2KPerW = 10;
    input.anchorU = anchorShare * 10;
    Random random(7);
    for (std::size_t g = 0; g < 3; ++g) {
        input.groups.push_back({std::string(1, static_cast<char>('A' + g)), nullptr});
        HeatPath path = input.bench.path;
        path.coolerKPerW = 0.1;
        path.powerW = 200;
        path.interfaces[0].rMm2KPerW = 10 + 4 * static_cast<double>(g);
        for (int m = 0; m < mounts; ++m)
            input.mounts.push_back({Id<Mount>{static_cast<std::int64_t>(input.mounts.size()) + 1}, g,
                                    totalKPerW(path) + 0.001 * random.normal(), 200, 22});
    }
    return calibrate(input);
}

double widthOf(const Interval& ci) { return ci.hi - ci.lo; }

} // namespace

class TestCalibrationDraws : public QObject {
    Q_OBJECT

private slots:
    void straightLinesNeedNoDraws() { // a well known anchor: both ways agree but for the draws' own error
        const Calibration calibration = calibrated(0.05, 6);
        const DrawnCalibration drawn = drawCalibration(calibration, {.draws = 4'000});
        QCOMPARE(drawn.draws, 4'000);
        QCOMPARE(drawn.refused, 0);
        for (std::size_t i = 0; i < calibration.differences.size(); ++i) {
            const Interval& ci = *calibration.differences[i].ci;
            QVERIFY_NEAR(drawn.differences[i]->lo, ci.lo, 0.03 * widthOf(ci));
            QVERIFY_NEAR(drawn.differences[i]->hi, ci.hi, 0.03 * widthOf(ci));
        }
        for (std::size_t g = 0; g < 3; ++g)
            QVERIFY_REL(widthOf(*drawn.groups[g]), widthOf(*calibration.groups[g].ci), 0.08);
    }
    void anAnchorKnownToAHalfLeavesNoJointBelowNothing() {
        const Calibration calibration = calibrated(0.5, 6);
        QVERIFY(calibration.groups[0].ci->lo < 0.3); // by variances the interval all but reaches nothing
        const DrawnCalibration drawn = drawCalibration(calibration, {.draws = 4'000});
        QVERIFY(drawn.groups[0]->lo > 1);
        // The anchor alone: a log-normal with mean 10 and standard deviation 5, its quantiles at ± 1.959964
        // σ.
        const double sigma = std::sqrt(std::log(1.25)), mu = std::log(10) - sigma * sigma / 2;
        const Interval truth{std::exp(mu - 1.959964 * sigma), std::exp(mu + 1.959964 * sigma)};
        QVERIFY_NEAR(drawn.groups[0]->lo, truth.lo, 0.02 * widthOf(truth));
        QVERIFY_NEAR(drawn.groups[0]->hi, truth.hi, 0.04 * widthOf(truth)); // few draws lie out there
        QVERIFY(!agree(*calibration.groups[0].ci, *drawn.groups[0]));
        for (std::size_t i = 0; i < calibration.differences.size(); ++i) // differences do not depend on it
            QVERIFY_REL(widthOf(*drawn.differences[i]), widthOf(*calibration.differences[i].ci), 0.08);
    }
    void aLiddedChipIsDrawnAsTheChainHasIt() { // its total over cooler and joint comes from a table
        CalibrationInput input;
        input.bench.path.solids = {
            {"die", {10, 20}, 0.775, 148, true}, {"lid", {30, 30}, 2.5, 390}, {"plate", {40, 40}, 3, 390}};
        input.bench.path.interfaces = {{"die–lid", 4.667}, {"lid–plate", 10}};
        input.bench.studied = 1;
        input.anchorMm2KPerW = 8;
        for (std::size_t g = 0; g < 2; ++g) {
            input.groups.push_back({std::string(1, static_cast<char>('A' + g)), nullptr});
            HeatPath path = input.bench.path;
            path.coolerKPerW = 0.12;
            path.powerW = 150;
            path.ambientC = 22;
            path.interfaces[1].rMm2KPerW = g == 0 ? 8 : 20;
            for (int m = 0; m < 3; ++m)
                input.mounts.push_back({Id<Mount>{static_cast<std::int64_t>(input.mounts.size()) + 1}, g,
                                        totalKPerW(path) + 1e-7 * (m - 1), 150, 22});
        }
        // A third that reached its limit and scatters over hundreds of mm²·K/W has no say in the others.
        input.groups.push_back({"C", nullptr});
        for (int m = 0; m < 3; ++m)
            input.mounts.push_back({Id<Mount>{100 + m}, 2, 0.3 + 0.15 * m, 150, 22, true});
        input.powerScaleU = 0;
        const DrawnCalibration drawn = drawCalibration(calibrate(input), {.draws = 100});
        // Next to no scatter: what the table has is what the chain has.
        QVERIFY_NEAR(drawn.coolerCi->lo, 0.12, 1e-5);
        QVERIFY_NEAR(drawn.groups[1]->lo, 20, 0.01);
        QVERIFY_NEAR(drawn.groups[1]->hi, 20, 0.01);
        QVERIFY(!drawn.groups[2]);
    }
    void threadsChangeNothing() {
        const Calibration calibration = calibrated(0.2, 3);
        const auto one = drawCalibration(calibration, {.draws = 200, .threads = 1});
        const auto three = drawCalibration(calibration, {.draws = 200, .threads = 3});
        for (std::size_t g = 0; g < 3; ++g) QCOMPARE(one.groups[g]->lo, three.groups[g]->lo);
    }
    void nothingIsDrawnFromOneMountEach() {
        const auto drawn = drawCalibration(calibrated(0.2, 1));
        QCOMPARE(drawn.draws, 0);
        QVERIFY(!drawn.coolerCi && !drawn.groups[0]);
    }
    void itCanBeCalledOff() {
        std::stop_source stop;
        stop.request_stop();
        QVERIFY(drawCalibration(calibrated(0.2, 3), {.stop = stop.get_token()}).cancelled);
    }
};

IBUKI_TEST(TestCalibrationDraws)
#include "tst_calibration_draws.moc"
