// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/heat/calibration.h"
#include "core/heat/disagreement.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

/// A bare chip of 400 mm² under a plate of its size: 1 K at 200 W is 2 mm²·K/W, so that all can be done by
/// hand.
BenchPath bareBench() {
    BenchPath bench;
    bench.path.powerW = 200;
    bench.path.ambientC = 25;
    bench.path.coolerKPerW = 0.1;
    bench.path.solids = {{"die", {20, 20}, 0.775, 115}, {"plate", {20, 20}, 4, 390}};
    bench.path.interfaces = {{"die–plate", 10}};
    bench.studied = 0;
    return bench;
}

/// Two groups of mounts whose R″ is scattered about 14 and 10.
Calibration calibrationOf(double sdMm2, int mounts, std::uint64_t seed) {
    CalibrationInput input;
    input.bench = bareBench();
    input.groups = {{"worse", nullptr}, {"better", nullptr}};
    input.anchor = 1;
    input.anchorMm2KPerW = 10;
    input.powerScaleU = 0;
    Random random(seed);
    for (std::size_t g = 0; g < 2; ++g)
        for (int m = 0; m < mounts; ++m) {
            HeatPath path = bareBench().path;
            path.interfaces[0].rMm2KPerW = (g == 0 ? 14 : 10) + sdMm2 * random.normal();
            PathMount mount;
            mount.mount = Id<Mount>{m + 1 + 100 * static_cast<std::int64_t>(g)};
            mount.group = g;
            mount.kPerW = totalKPerW(path);
            mount.powerW = 200;
            mount.ambientC = 25;
            input.mounts.push_back(mount);
        }
    return calibrate(input);
}

ExternalResult readOf(double kelvin) {
    ExternalResult read;
    read.difference = Kelvin{kelvin};
    read.power = Watt{100};
    read.chipMm2 = 400;
    read.lid = LidState::bareDie;
    return read;
}

BenchPath judged(const Calibration& calibration) {
    BenchPath bench = bareBench();
    bench.path.coolerKPerW = calibration.coolerKPerW;
    return bench;
}

} // namespace

class TestDisagreement : public QObject {
    Q_OBJECT

private slots:
    void halfThePowerIsHalfTheDifference() {
        const Calibration calibration = calibrationOf(0, 3, 1);
        const Disagreement found = explainDisagreement(calibration, judged(calibration), 0, 1, readOf(3));
        QVERIFY_NEAR(found.hereK, 2, 1e-6);     // 4 mm²·K/W × 200 W / 400 mm²
        QVERIFY_NEAR(found.expectedK, 1, 0.01); // a hundredth: silicon there conducts by its temperature
        QVERIFY_NEAR(found.benchesK, -1, 0.01);
        QVERIFY_NEAR(found.leftK, 2, 0.01); // no scatter at all: all the rest is left
        QVERIFY_NEAR(found.hereK + found.benchesK + found.byScatterK + found.leftK, 3, 1e-9);
    }
    void theOtherWayRoundTurnsEverySign() {
        const Calibration calibration = calibrationOf(0.5, 4, 2);
        const auto one = explainDisagreement(calibration, judged(calibration), 0, 1, readOf(3));
        const auto other = explainDisagreement(calibration, judged(calibration), 1, 0, readOf(-3));
        QVERIFY_NEAR(one.hereK, -other.hereK, 1e-9);
        QVERIFY_NEAR(one.expectedK, -other.expectedK, 1e-9);
        QVERIFY_REL(*one.scatterK, *other.scatterK,
                    0.02); // each interval is carried about its own second joint
        QVERIFY_NEAR(one.leftK, -other.leftK, 0.05);
    }
    void aLargerChipAndALidMakeLessOfIt() {
        const Calibration calibration = calibrationOf(0, 3, 3);
        ExternalResult larger = readOf(0), lidded = readOf(0);
        larger.chipMm2 = 800;
        lidded.lid = LidState::lidded;
        const double plain = explainDisagreement(calibration, judged(calibration), 0, 1, readOf(0)).expectedK;
        QVERIFY_REL(explainDisagreement(calibration, judged(calibration), 0, 1, larger).expectedK, plain / 2,
                    0.01);
        QVERIFY(explainDisagreement(calibration, judged(calibration), 0, 1, lidded).expectedK < plain);
    }
    void oneMountEachTellsNoScatter() {
        const Calibration calibration = calibrationOf(0.5, 1, 4);
        const auto found = explainDisagreement(calibration, judged(calibration), 0, 1, readOf(9));
        QVERIFY(!found.scatterK);
        QCOMPARE(found.byScatterK, 0.0);
    }
    /// Reports of a bench that scatters as this one does: something is left in at most 5 % of 1,000. Both
    /// bands are added as squares of half widths by Student's t, a little wide; 3.5 standard errors of a
    /// share are allowed.
    void whatAgreesIsLeftAloneByItself() {
        constexpr int reports = 1'000;
        constexpr double sd = 0.6;
        Random random(5);
        int left = 0;
        for (int i = 0; i < reports; ++i) {
            const Calibration calibration = calibrationOf(sd, 5, 100 + static_cast<std::uint64_t>(i));
            ExternalResult read = readOf(0);
            read.mounts = 2;
            double difference = 0;
            for (int m = 0; m < 2; ++m) difference += (4 + sd * (random.normal() - random.normal())) / 2;
            read.difference = Kelvin{difference * 100 / 400};
            left += std::abs(explainDisagreement(calibration, judged(calibration), 0, 1, read).leftK) > 1e-9;
        }
        QVERIFY(left > 0.01 * reports);
        QVERIFY(left < (0.05 + 3.5 * std::sqrt(0.05 * 0.95 / reports)) * reports);
    }
};

IBUKI_TEST(TestDisagreement)
#include "tst_disagreement.moc"
