// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/conduct/conductor.h"
#include "core/domain/words.h"
#include "core/plan/step_occurrence.h"
#include "core/plan/step_times.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

ProtocolStep stated(StepKind kind, double minutes, GateKind gate = GateKind::none, double value = 0) {
    ProtocolStep step;
    step.kind = kind;
    step.minutes = minutes;
    step.gate = gate;
    step.gateValue = value;
    step.unattended = true;
    return step;
}

Load load(std::int64_t id, const std::string& name, std::optional<double> watt) {
    Load made;
    made.id = Id<Load>{id};
    made.name = name;
    if (watt) made.target = Watt{*watt};
    return made;
}

QStringList namesOf(const std::vector<StepOccurrence>& steps) {
    QStringList names;
    for (const StepOccurrence& step : steps)
        names << QString::fromStdString(std::string(word(step.kind))
                                        + (step.load.empty() ? "" : " " + step.load));
    return names;
}

} // namespace

class TestStepOccurrence : public QObject {
    Q_OBJECT
private slots:
    void eachLoadHasItsOwnSoakWhereOneIsStated() {
        const Load heavy = load(1, "heavy", 200);
        const Load light = load(2, "light", 60);
        std::vector protocol{stated(StepKind::condition, 30), stated(StepKind::idle, 5),
                             stated(StepKind::soak, 20),      stated(StepKind::measure, 5),
                             stated(StepKind::cool, 10),      stated(StepKind::soak, 7)};
        protocol.back().load = light.id;
        const auto steps = occurrencesOf(protocol, {&heavy, &light}, 0);
        QCOMPARE(namesOf(steps),
                 (QStringList{"idle", "soak heavy", "measure heavy", "measure light", "soak light", "cool"}));
        QCOMPARE(steps[4].minutes, 7.0);
        QCOMPARE(steps[4].row, std::size_t{5});
        QCOMPARE(*steps[1].powerW, 200.0);
        QVERIFY(!steps[0].powerW && !steps.back().powerW);
        const auto all = occurrencesOf(protocol, {&heavy, &light}, 0, StepKind::condition);
        QCOMPARE(namesOf(all).front(), QString("condition light")); // under the last load
    }
    void withoutALoadTheStepsAreThereOnce() {
        const std::vector protocol{stated(StepKind::soak, 20), stated(StepKind::measure, 5)};
        QCOMPARE(namesOf(occurrencesOf(protocol, {}, 0)), (QStringList{"soak", "measure"}));
        const Load unstated = load(1, "sustained", std::nullopt);
        const auto steps = occurrencesOf(protocol, {&unstated}, 0);
        QCOMPARE(namesOf(steps), (QStringList{"soak sustained", "measure sustained"}));
        QVERIFY(!steps[0].powerW);
    }
    void aSoakLastsAsLongAsTheSlowestPartAsksFor() { // with a gate or without, planned or run
        for (GateKind gate : {GateKind::none, GateKind::remainingBelow}) {
            const Load one = load(1, "sustained", 150);
            const std::vector protocol{stated(StepKind::soak, 20, gate, 0.2)};
            const StepOccurrence planned = occurrencesOf(protocol, {&one}, 15).front();
            QVERIFY_NEAR(planned.minutes, 15 * std::log(200.0), 1e-12);
            QCOMPARE(planned.leastMinutes, gate == GateKind::none ? 0.0 : 15.0);
            QCOMPARE(conductedSteps(protocol, {&one}, 15).front().minutes, planned.minutes);
            QCOMPARE(occurrencesOf(protocol, {&one}, 1).front().minutes,
                     20.0); // as stated where it is longer
        }
    }
    void whatIsPlannedIsWhatIsRun() { // of every preset: the same steps, as long, in the same order
        for (ProtocolPreset preset : {ProtocolPreset::air, ProtocolPreset::liquid, ProtocolPreset::laptop,
                                      ProtocolPreset::phaseChange}) {
            story::Asked asked = story::ask();
            Edit edit(asked.document, "preset");
            usePreset(edit, asked.study, preset);
            Configuration rig = *currentConfiguration(edit.document(), asked.bench);
            rig.slowestMinutes = 9;
            edit.put(rig);
            apply(asked.document, edit.finish());
            auto planned = mountSteps(asked.document, asked.study, nullptr);
            auto run =
                conductedSteps(protocolOf(asked.document, asked.study), loadsOf(asked.document, asked.study),
                               slowestMinutes(asked.document, asked.study));
            std::erase_if(planned, [](const StepOccurrence& step) { return step.kind < StepKind::settle; });
            std::erase_if(run, [](const StepOccurrence& step) { return step.kind < StepKind::settle; });
            QCOMPARE(namesOf(planned), namesOf(run));
            for (std::size_t i = 0; i < run.size(); ++i) QCOMPARE(planned[i].minutes, run[i].minutes);
        }
    }
    void everyGateHasItsWords() {
        QSet<QString> codes;
        for (std::size_t kind = 0; kind < Words<GateKind>::all.size(); ++kind)
            codes << QString::fromStdString(lastsMessage(5, static_cast<GateKind>(kind), 1).code);
        QCOMPARE(codes.size(), static_cast<qsizetype>(Words<GateKind>::all.size()));
    }
};

IBUKI_TEST(TestStepOccurrence)
#include "tst_step_occurrence.moc"
