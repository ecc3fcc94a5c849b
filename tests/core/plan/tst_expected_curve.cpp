// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/lookup.h"
#include "core/plan/expected_curve.h"
#include "core/plan/step_times.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

#include <cmath>

using namespace ibuki;

namespace {

ProtocolStep step(StepKind kind, double minutes, GateKind gate = GateKind::none, double value = 0) {
    ProtocolStep made;
    made.kind = kind;
    made.minutes = minutes;
    made.gate = gate;
    made.gateValue = value;
    return made;
}

ExpectedCurve curveOf(const Document& document, Id<Study> study, const std::vector<ProtocolStep>& protocol) {
    return expectedCurve(document, study, expectedBench(document, study), protocol);
}

/// One load of 150 W.
story::Asked asked() {
    auto asked = story::ask();
    Edit edit(asked.document, "load");
    Load load = *loadsOf(asked.document, asked.study).front();
    load.target = Watt{150};
    edit.put(load);
    apply(asked.document, edit.finish());
    return asked;
}

Document withSlowest(Document document, Id<Bench> bench, double minutes) {
    Edit edit(document, "rig");
    Configuration rig = *currentConfiguration(document, bench);
    rig.slowestMinutes = minutes;
    edit.put(rig);
    apply(document, edit.finish());
    return document;
}

} // namespace

class TestExpectedCurve : public QObject {
    Q_OBJECT
private slots:
    void theUsualBenchIsTheAirLadder() { // docs/methods.md, "Thermal ladder": 0.267 K/W, 59.19 s
        const auto story = asked();
        const ExpectedBench bench = expectedBench(story.document, story.study);
        QVERIFY_NEAR(bench.kPerW, 0.267, 1e-12);
        QVERIFY_NEAR(60 * bench.slowestMinutes, 59.19, 0.005);
        QCOMPARE(bench.kPerWFrom, ExpectedFrom::typical);
        QCOMPARE(bench.slowestFrom, ExpectedFrom::typical);
    }
    void aColdSoakOpensItsGateAsTheExampleDoes() { // 150 W from cold: 0.1 K left after 301 s
        const auto story = asked();
        const std::vector protocol{step(StepKind::soak, 20, GateKind::remainingBelow, 0.1)};
        const ExpectedCurve curve = curveOf(story.document, story.study, protocol);
        QCOMPARE(curve.steps.size(), std::size_t{1});
        QVERIFY(curve.forecasts[0].opensAt);
        QVERIFY_NEAR(60 * *curve.forecasts[0].opensAt, 301, 5.5); // a sample is 5 s
        QVERIFY_NEAR(curve.forecasts[0].riseK, 150 * 0.267, 1e-3);
        QVERIFY_NEAR(*curve.gateFigure(0, protocol[0].gate, *curve.forecasts[0].opensAt), 0.1, 0.01);
    }
    void aSlopeRuleLeavesTheSlowPartsRise() { // remaining = τ |dT/dt|: 0.1 K/min leaves 0.10 K at 59 s
        const auto story = asked();
        const std::vector protocol{step(StepKind::soak, 60, GateKind::chipSlopeBelow, 0.1),
                                   step(StepKind::measure, 5)};
        const ExpectedCurve curve = curveOf(story.document, story.study, protocol);
        const ProtocolStep left = step(StepKind::soak, 60, GateKind::remainingBelow, 0.1);
        QVERIFY_NEAR(*curve.gateFigure(0, left.gate, *curve.forecasts[0].opensAt), 0.0987, 0.01);
    }
    void theStatedSlowestPartIsTheLaddersOwn() { // property, by the ladder's own eigenvalue
        const auto story = asked();
        for (double minutes : {0.5, 2.0, 8.5, 16.5, 90.0}) {
            const Document document = withSlowest(story.document, story.bench, minutes);
            const ExpectedBench bench = expectedBench(document, story.study);
            QCOMPARE(bench.slowestFrom, ExpectedFrom::stated);
            QVERIFY_NEAR(ThermalLadder(bench.ladder, 1).slowestS() / 60, minutes, 1e-6 * minutes);
            QVERIFY_NEAR(ThermalLadder(bench.ladder, 1).totalKPerW(), 0.267, 1e-9);
            // The same from the decay of what is left, long after the fast parts: a second road.
            ThermalLadder ladder(bench.ladder, 60 * minutes);
            ladder.settle(0, 0);
            for (int i = 0; i < 6; ++i) ladder.step(150, 0);
            const double before = 150 * 0.267 - ladder.chipC();
            ladder.step(150, 0);
            QVERIFY_NEAR(std::log(before / (150 * 0.267 - ladder.chipC())), 1, 2e-3);
        }
    }
    void aSlowLoopDoesNotOpenInTwentyMinutes() {
        const auto story = asked();
        const Document document = withSlowest(story.document, story.bench, 16.5);
        const auto protocol = presetSteps(ProtocolPreset::air, story.study);
        const ExpectedCurve curve = curveOf(document, story.study, protocol);
        const StepForecast& soak = curve.forecasts.at(2);
        QCOMPARE(curve.steps.at(2).kind, StepKind::soak);
        // The soak is made as long as the slowest part asks for: ln(40/0.2) of it.
        QVERIFY_NEAR(soak.to - soak.from, 16.5 * std::log(200.0), 0.2);
        QVERIFY(soak.opensAt && *soak.opensAt - soak.from > 20);
        QVERIFY(*soak.opensAt <= soak.to);
        const StepForecast& cool = curve.forecasts.back();
        QVERIFY(cool.opensAt && *cool.opensAt > cool.to); // 15 minutes do not cool a loop
        QVERIFY(*cool.atEnd > 1);
        QVERIFY(cool.leftK < 0);
    }
    void everyLoadHasItsSoak() {
        auto story = asked();
        Edit edit(story.document, "loads");
        Load more = *loadsOf(story.document, story.study).front();
        more.id = {};
        more.target = Watt{230};
        more.position = 1;
        edit.add(more);
        apply(story.document, edit.finish());
        const auto protocol = presetSteps(ProtocolPreset::air, story.study);
        const ExpectedCurve curve = curveOf(story.document, story.study, protocol);
        QCOMPARE(curve.steps.size(), std::size_t{7});
        QCOMPARE(curve.forecasts[2].powerW, 150.0);
        QCOMPARE(curve.forecasts[4].powerW, 230.0);
        QVERIFY_NEAR(curve.forecasts[4].riseK, 230 * 0.267, 0.01);
        for (std::size_t i = 1; i < curve.steps.size(); ++i)
            QCOMPARE(curve.forecasts[i].from, curve.forecasts[i - 1].to);
    }
    void finishedRunsTeachTheResistance() {
        auto story = story::measured();
        const ExpectedBench bench = expectedBench(story.document, story.study);
        QCOMPARE(bench.kPerWFrom, ExpectedFrom::learned);
        // The story's middle material: the ladder's 0.252 and an interface of 0.026 and a hot spot of 0.02.
        SimulatedBench truth;
        double sum = truth.interfaceKPerW = 0.026;
        for (const LadderNode& node : truth.layers) sum += node.toNextKPerW;
        QVERIFY_NEAR(bench.kPerW, sum + truth.hotSpotKPerW, 0.02); // the hottest core has its own offset
    }
    void nothingToRunIsAnEmptyCurve() {
        const auto story = asked();
        const ExpectedCurve curve = curveOf(story.document, story.study, {});
        QVERIFY(curve.steps.empty());
        QVERIFY(!curve.gateFigure(0, GateKind::none, 0));
        const ExpectedCurve days = curveOf(story.document, story.study, {step(StepKind::soak, 50'000)});
        QVERIFY(days.points.size() < 2500); // long ones are drawn coarser
    }
};

IBUKI_TEST(TestExpectedCurve)
#include "tst_expected_curve.moc"
