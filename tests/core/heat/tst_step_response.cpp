// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/heat/step_response.h"
#include "core/reduce/reduce.h"
#include "core/simulate/simulated_bench.h"
#include "support/foster_of.h"
#include "support/near.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

struct Sampling {
    double intervalS = 1;
    double phaseS = 0.5; ///< of the first sample after the step
    double stepK = 0;
    double noiseK = 0;
    double restS = 100;
    double loadS = 300;
};

/// A log of a step from 20 to 150 W under a device with these terms, its room rising slowly.
Trace stepLog(const std::vector<FosterTerm>& terms, const Sampling& sampling) {
    Trace trace;
    Channel core{"Core", Unit::celsius, Role::core, 0, {}, {}},
        power{"Power", Unit::watt, Role::packagePower, 0, {}, {}},
        room{"Room", Unit::celsius, Role::ambient, 0, {}, {}};
    Random random(1);
    const auto before = std::ceil(sampling.restS / sampling.intervalS);
    const double first = sampling.phaseS - before * sampling.intervalS;
    for (int i = 0; first + i * sampling.intervalS <= sampling.loadS; ++i) {
        const double t = first + i * sampling.intervalS, ambientC = 22 + 2e-4 * i * sampling.intervalS;
        double celsius =
            10 + ambientC + (t > 0 ? 130 * impedanceAt(terms, t) : 0) + sampling.noiseK * random.normal();
        if (sampling.stepK > 0) celsius = std::round(celsius / sampling.stepK) * sampling.stepK;
        trace.timeS.push_back(i * sampling.intervalS);
        core.values.push_back(celsius);
        power.values.push_back(t > 0 ? 150 : 20);
        room.values.push_back(ambientC);
    }
    trace.channels = {core, power, room};
    return trace;
}

StepResponse readStep(const Trace& trace) {
    const Reduction reduction = reduce(trace);
    return stepResponseOf(trace, {}, reduction.main()->phases.at(1));
}

const std::vector<FosterTerm> thin{{0.10, 0.5}, {0.12, 60}}, thick{{0.12, 0.5}, {0.12, 60}};

} // namespace

class TestStepResponse : public QObject {
    Q_OBJECT

private slots:
    void twoTermDeviceAtTwoSeconds() {
        // Worked example: Z(2 s) = 0.102103 and 0.121736 K/W. Samples on both sides are interpolated: at 10
        // Hz that costs less than a thousandth.
        const Sampling sampling{.intervalS = 0.1, .phaseS = 0.05};
        const double a = *impedanceAt(readStep(stepLog(thin, sampling)), 2);
        const double b = *impedanceAt(readStep(stepLog(thick, sampling)), 2);
        QVERIFY_REL(a, 0.102103, 1e-3);
        QVERIFY_REL(b, 0.121736, 1e-3);
        QVERIFY_REL(b - a, 0.019634, 2e-3);
    }

    void stepAndSamplingAreTold() {
        const StepResponse response = readStep(stepLog(thin, {.stepK = 0.5, .loadS = 200}));
        QVERIFY(!response.reason);
        QVERIFY(response.isAmbientKnown);
        QVERIFY_NEAR(response.stepW, 130, 1e-9);
        QVERIFY_NEAR(response.intervalS, 1, 1e-9);
        QVERIFY_NEAR(response.sensorStepK, 0.5, 1e-9);
        QVERIFY_NEAR(response.noiseK, 0.5 / std::sqrt(12.0), 0.2);
        QVERIFY_NEAR(response.steadyS, 200, 2);
        QVERIFY(!impedanceAt(response, 0.1)); // before the first two samples
        QVERIFY(!impedanceAt(response, 500));
    }

    /// A step between two samples is read within half an interval of where it was; what that costs is what is
    /// stated.
    void startLiesBetweenItsSamples() {
        double worst = 0, stated = 0;
        for (double phase : {0.05, 0.25, 0.5, 0.75, 0.95}) {
            const StepResponse response = readStep(stepLog(thin, {.phaseS = phase}));
            worst = std::max(worst, std::abs(*impedanceAt(response, 5) - impedanceAt(thin, 5)));
            stated = *slopeAt(response, 5) * 0.5;
        }
        QVERIFY(worst < 1.3 * stated);
        QVERIFY_NEAR(startUncertaintyS(readStep(stepLog(thin, {}))), 1 / std::sqrt(12.0), 1e-9);
    }

    void ambientThatRisesIsTakenOff() {
        auto trace = stepLog(thin, {.loadS = 900});
        const StepResponse response = readStep(trace);
        for (std::size_t i = 0; i < trace.samples(); ++i) {
            const double more = 0.02 * trace.timeS[i];
            trace.channels[0].values[i] += more;
            trace.channels[2].values[i] += more;
        }
        // The rest before it rises with the room: it is allowed 2 K a minute.
        QVERIFY_NEAR(*impedanceAt(readStep(trace), 100), *impedanceAt(response, 100), 1e-9);
    }

    void whatCannotBeReadIsRefused_data() {
        QTest::addColumn<QString>("what");
        QTest::addColumn<QString>("code");
        QTest::newRow("no power") << "power"
                                  << "transient-no-power";
        QTest::newRow("no rest") << "rest"
                                 << "transient-no-rest";
        QTest::newRow("ramp") << "ramp"
                              << "transient-ramp";
        QTest::newRow("still cooling") << "cooling"
                                       << "transient-unrested";
        QTest::newRow("no temperature") << "metric"
                                        << "transient-no-metric";
    }
    void whatCannotBeReadIsRefused() {
        QFETCH(QString, what);
        QFETCH(QString, code);
        Trace trace = stepLog(thin, {.restS = what == "rest" ? 2.0 : 100.0});
        const Phase load{"load", what == "rest" ? 2.5 : 100.0, trace.timeS.back()};
        if (what == "power") trace.channels.erase(trace.channels.begin() + 1);
        if (what == "metric") trace.channels.erase(trace.channels.begin());
        for (std::size_t i = 0; i < trace.samples(); ++i) {
            const double t = trace.timeS[i] - 100;
            if (what == "ramp" && t > 0) trace.channels[1].values[i] = 110 + std::min(40.0, 4 * t);
            if (what == "cooling" && t < 0) trace.channels[0].values[i] -= 0.05 * t;
        }
        const StepResponse response = stepResponseOf(trace, {}, load);
        QVERIFY(response.reason);
        QCOMPARE(QString::fromStdString(response.reason->code), code);
        QVERIFY(!impedanceAt(response, 5));
        QVERIFY(layersOf(response).structure.empty());
    }

    void powerThatMovesLaterEndsTheReading() {
        Trace trace = stepLog(thin, {});
        for (std::size_t i = 0; i < trace.samples(); ++i)
            if (trace.timeS[i] > 130) trace.channels[1].values[i] = 120; // a boost that ends
        const StepResponse response = stepResponseOf(trace, {}, {"load", 100, trace.timeS.back()});
        QVERIFY(!response.reason);
        QVERIFY_NEAR(response.steadyS, 30, 4);
        QVERIFY(impedanceAt(response, 20));
        QVERIFY(!impedanceAt(response, 40));
    }

    void sightFollowsSampling() {
        QCOMPARE(sightOf(readStep(stepLog(thin, {.stepK = 0.5}))), TransientSight::sum);
        QCOMPARE(sightOf(readStep(stepLog(thin, {.intervalS = 0.05, .phaseS = 0.02, .stepK = 0.125}))),
                 TransientSight::joint);
        QCOMPARE(sightOf(readStep(stepLog(thin, {.intervalS = 0.05, .phaseS = 0.02, .stepK = 0.5}))),
                 TransientSight::sum);
    }

    /// Worked example: an air cooler whose joint under the lid is 0.005 K/W more, at 150 W. What a slow
    /// logger sees of it early is little.
    void jointUnderTheLidShowsInHalfSeconds() {
        std::vector<LadderNode> one{{0.26, 0.057}, {7.7, 0.075}, {100, 0.045}, {540, 0.09}}, other = one;
        other[1].toNextKPerW = 0.080;
        const auto a = fosterOf(one), b = fosterOf(other);
        const std::vector<std::pair<double, double>> kelvin{
            {0.1, 0.005}, {0.3, 0.053}, {0.5, 0.129}, {1, 0.327}, {2, 0.562}, {5, 0.689}, {10, 0.719}};
        for (const auto& [time, difference] : kelvin)
            QVERIFY_NEAR(150 * (impedanceAt(b, time) - impedanceAt(a, time)), difference, 6e-4);
    }

    void fastSamplingShowsLayers() {
        const auto terms = fosterOf({{0.26, 0.057}, {7.7, 0.075}, {100, 0.045}, {540, 0.09}});
        const StepResponse response = readStep(
            stepLog(terms, {.intervalS = 1e-3, .phaseS = 5e-4, .noiseK = 0.005, .restS = 4, .loadS = 60}));
        QVERIFY(!response.reason);
        QCOMPARE(sightOf(response), TransientSight::layers);
        const LayersSeen seen = layersOf(response);
        QVERIFY(!seen.structure.empty());
        const auto at = [&](double jPerK) {
            for (const StructurePoint& point : seen.structure)
                if (point.jPerK >= jPerK) return point.kPerW;
            return -1.0;
        };
        QVERIFY_NEAR(at(2), 0.057, 0.015);                                 // from the die to the lid
        QVERIFY_NEAR(at(30), 0.132, 0.015);                                // and on to the base
        QVERIFY(layersOf(readStep(stepLog(terms, {}))).structure.empty()); // nothing of it from 1 Hz
    }
};

IBUKI_TEST(TestStepResponse)
#include "tst_step_response.moc"
