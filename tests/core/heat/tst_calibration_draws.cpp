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
            QVERIFY_NEAR(drawn.differences[i]->lo, ci.lo, 0.06 * widthOf(ci));
            QVERIFY_NEAR(drawn.differences[i]->hi, ci.hi, 0.06 * widthOf(ci));
        }
        for (std::size_t g = 0; g < 3; ++g)
            QVERIFY_REL(widthOf(*drawn.groups[g]), widthOf(*calibration.groups[g].ci), 0.08);
    }
    void anAnchorKnownToAHalfLeavesNoJointBelowNothing() {
        const Calibration calibration = calibrated(0.5, 6);
        QVERIFY(calibration.groups[0].ci->lo < 0.3); // by variances the interval all but reaches nothing
        const DrawnCalibration drawn = drawCalibration(calibration, {.draws = 4'000});
        QVERIFY(drawn.groups[0]->lo > 1);
        // The anchor alone: the shortest 95 % of a log-normal with mean 10 and standard deviation 5.
        const double sigma = std::sqrt(std::log(1.25)), mu = std::log(10) - sigma * sigma / 2;
        double best = 1e9, lo = 0, hi = 0;
        for (double p = 0.0005; p < 0.05; p += 0.0005) {
            const auto quantile = [&](double q) { // of the normal, by bisection
                double a = -8, b = 8;
                for (int i = 0; i < 80; ++i)
                    (std::erfc(-(a + b) / 2 / std::sqrt(2.0)) / 2 < q ? a : b) = (a + b) / 2;
                return std::exp(mu + sigma * a);
            };
            if (quantile(p + 0.95) - quantile(p) >= best) continue;
            lo = quantile(p);
            hi = quantile(p + 0.95);
            best = hi - lo;
        }
        QVERIFY_NEAR(drawn.groups[0]->lo, lo, 0.06 * best);
        QVERIFY_NEAR(drawn.groups[0]->hi, hi, 0.06 * best);
        QVERIFY(!agree(*calibration.groups[0].ci, *drawn.groups[0]));
        for (std::size_t i = 0; i < calibration.differences.size(); ++i) // differences do not depend on it
            QVERIFY_REL(widthOf(*drawn.differences[i]), widthOf(*calibration.differences[i].ci), 0.08);
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
