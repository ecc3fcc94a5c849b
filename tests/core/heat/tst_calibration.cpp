// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/heat/calibration.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

BenchPath calibratedBench() {
    BenchPath bench;
    bench.path.solids = {
        {"die", {10, 20}, 0.775, 148, true}, {"lid", {30, 30}, 2.5, 390}, {"plate", {40, 40}, 3, 390}};
    bench.path.interfaces = {{"die–lid", 4.667}, {"lid–plate", 10}};
    bench.studied = 1;
    return bench;
}

/// Mounts whose true R″ are known, under a bench whose cooler nobody knows.
CalibrationInput measured(const std::vector<double>& truth, double cooler, int mounts, double sdKPerW,
                          double powerScale, Random& random) {
    CalibrationInput input;
    input.bench = calibratedBench();
    HeatPath path = input.bench.path;
    path.coolerKPerW = cooler;
    path.powerW = 150;
    path.ambientC = 22;
    for (std::size_t g = 0; g < truth.size(); ++g) {
        input.groups.push_back({std::string(1, static_cast<char>('A' + g)), nullptr});
        path.interfaces[1].rMm2KPerW = truth[g];
        const double total = totalKPerW(path);
        for (int i = 0; i < mounts; ++i)
            input.mounts.push_back({Id<Mount>{static_cast<std::int64_t>(input.mounts.size()) + 1}, g,
                                    (total + sdKPerW * random.normal()) * powerScale, 150, 22});
    }
    input.anchorMm2KPerW = truth[0];
    return input;
}

} // namespace

class TestCalibration : public QObject {
    Q_OBJECT

private slots:
    void givesBackWhatWasPutIn() {
        Random random(1);
        const std::vector<double> truth{8, 15, 2.5, 40};
        const Calibration found = calibrate(measured(truth, 0.12, 2, 0, 1, random));
        QVERIFY_NEAR(found.coolerKPerW, 0.12, 1e-9);
        for (std::size_t g = 0; g < truth.size(); ++g) QVERIFY_NEAR(found.groups[g].mm2KPerW, truth[g], 1e-6);
        for (const ResistanceDifference& d : found.differences)
            QVERIFY_NEAR(d.mm2KPerW, truth[d.a] - truth[d.b], 1e-6);
        const HeatPathSteps steps = solveChain(calibratedPath(found, truth[1], 150, 22));
        QVERIFY_NEAR(steps.totalKPerW, found.groups[1].kPerW, 1e-12);
    }
    void differencesDoNotDependOnTheAnchor() {
        Random random(2);
        CalibrationInput input = measured({8, 15}, 0.12, 3, 0, 1, random);
        const double right = calibrate(input).differences[0].mm2KPerW;
        input.anchorMm2KPerW = 4; // half of it
        const Calibration wrong = calibrate(input);
        QVERIFY_NEAR(wrong.groups[0].mm2KPerW, 4, 1e-6);
        QVERIFY_NEAR(wrong.differences[0].mm2KPerW, right,
                     0.02 * std::abs(right)); // the spreading bends a little
        QVERIFY_NEAR(wrong.coolerKPerW - 0.12, 4 / wrong.effectiveAreaMm2, 1e-3);
    }
    void intervalsOfDifferencesHoldTheTruth() {
        // 1,000 benches with three materials and three mounts each, a power meter off by its scale, an anchor
        // off by its uncertainty. 95 % intervals of three differences each; a share outside 93 to 97 % of
        // independent ones has probability below 0.005.
        Random random(3);
        int held = 0, heldMean = 0, all = 0, allMeans = 0;
        for (int bench = 0; bench < 1'000; ++bench) {
            const std::vector<double> truth{6 + 6 * random.uniform(), 4 + 12 * random.uniform(),
                                            4 + 30 * random.uniform()};
            CalibrationInput input = measured(truth, 0.08 + 0.1 * random.uniform(), 3, 0.002,
                                              1 + 0.0115 * random.normal(), random);
            input.powerScaleU = 0.0115;
            input.anchorU = 0.5;
            input.anchorMm2KPerW += input.anchorU * random.normal();
            const Calibration found = calibrate(input);
            for (const ResistanceDifference& d : found.differences) {
                held += d.ci->contains(truth[d.a] - truth[d.b]) ? 1 : 0;
                ++all;
            }
            for (std::size_t g = 1; g < 3; ++g) {
                heldMean += found.groups[g].ci->contains(truth[g]) ? 1 : 0;
                ++allMeans;
            }
        }
        const double share = static_cast<double>(held) / all,
                     ofMeans = static_cast<double>(heldMean) / allMeans;
        QVERIFY2(share > 0.93 && share < 0.97, qPrintable(QString::number(share)));
        QVERIFY2(ofMeans > 0.93 && ofMeans < 0.98, qPrintable(QString::number(ofMeans)));
    }
    void whatReachedTheLimitScattersOnItsOwn() {
        Random random(7);
        CalibrationInput input = measured({8, 12, 40}, 0.12, 3, 0.001, 1, random);
        const double before =
            calibrate(input).differences[0].ci->hi - calibrate(input).differences[0].mm2KPerW;
        for (PathMount& mount : input.mounts)
            if (mount.group == 2) mount.censored = true;
        input.mounts[8].kPerW += 0.1; // spread far too thick
        const Calibration found = calibrate(input);
        const double after = found.differences[0].ci->hi - found.differences[0].mm2KPerW;
        QVERIFY(after < 2 * before);
        QVERIFY(found.differences[1].ci->hi - found.differences[1].mm2KPerW > 10 * after);
    }
    void whatCanBeToldApartFollowsTheScatter() {
        Random random(9);
        CalibrationInput input = measured({8, 15}, 0.12, 8, 0.002, 1, random);
        for (std::size_t i = 0; i < input.mounts.size(); ++i) { // each half of its scatter follows the room
            input.mounts[i].ambientC = 22 + random.normal();
            input.mounts[i].kPerW += 0.004 * (input.mounts[i].ambientC - 22);
        }
        const Calibration found = calibrate(input);
        const auto reported = tellableDifference(found);
        QVERIFY(reported && reported->mounts == 8);
        // Student's t for 14 degrees of freedom, two groups of eight.
        QVERIFY_REL(reported->mm2KPerW, 2.1448 * found.sdKPerW * std::sqrt(2.0 / 8) * found.effectiveAreaMm2,
                    1e-4);
        QVERIFY(*reported->inSteadyAmbientMm2KPerW < 0.75 * reported->mm2KPerW);
        for (PathMount& mount : input.mounts) // a group at its limit has no say in it
            if (mount.group == 1) {
                mount.censored = true;
                mount.kPerW += 0.2 * random.normal();
            }
        QVERIFY(*tellableDifference(calibrate(input))->inSteadyAmbientMm2KPerW < reported->mm2KPerW);
        QVERIFY(!tellableDifference(calibrate(measured({8, 15}, 0.12, 1, 0, 1, random))));
    }
    void oneMountEachHasNoInterval() {
        Random random(4);
        const Calibration found = calibrate(measured({8, 15}, 0.12, 1, 0, 1, random));
        QVERIFY(!found.differences[0].ci && !found.groups[1].ci && !found.coolerCi);
        QVERIFY_NEAR(found.differences[0].mm2KPerW, -7, 1e-6);
    }
    void aJointBelowZeroIsToldAsSuch() {
        Random random(5);
        CalibrationInput input = measured({8, 3}, 0.12, 1, 0, 1, random);
        input.anchorMm2KPerW = 1; // 7 too little, so that all others are too
        const Calibration found = calibrate(input);
        QVERIFY(found.groups[1].mm2KPerW < 0);
        QVERIFY_NEAR(found.groups[1].mm2KPerW, -4, 0.2);
    }
    void layersThatResistMoreThanWasMeasuredAreRefused() {
        Random random(6);
        CalibrationInput input = measured({8}, 0.12, 1, 0, 1, random);
        input.mounts[0].kPerW = 0.05;
        try {
            calibrate(input);
            QFAIL("was not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.message.code, std::string("heat-calibration.cooler-below-zero"));
        }
        input.anchor = 3;
        QVERIFY_THROWS_EXCEPTION(InputError, calibrate(input));
    }
};

IBUKI_TEST(TestCalibration)
#include "tst_calibration.moc"
