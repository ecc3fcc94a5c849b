// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/words.h"
#include "core/plan/mount_brief.h"
#include "core/plan/step_times.h"
#include "core/setup/plan_setup.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

using namespace ibuki;

namespace {

const Instant thirdOfMarch = *parseInstant("2031-03-03");

double minutesOf(const std::vector<StepOccurrence>& steps, StepKind kind) {
    double sum = 0;
    for (const StepOccurrence& step : steps) sum += step.kind == kind ? step.minutes : 0;
    return sum;
}

} // namespace

class TestStepTimes : public QObject {
    Q_OBJECT

    story::Asked asked_ = story::ask();

    template <class Change> void change(Change&& apply) {
        Edit edit(asked_.document, "change");
        apply(edit);
        ibuki::apply(asked_.document, edit.finish());
    }

private slots:
    void init() { asked_ = story::ask(); }

    void handsComeFirstThenTheProtocol() {
        const auto steps = mountSteps(asked_.document, asked_.study, nullptr);
        QCOMPARE(steps.front().kind, StepKind::remove);
        QVERIFY(!steps.front().unattended);
        QCOMPARE(steps.back().kind, StepKind::cool);
        QVERIFY(steps.back().unattended);
    }
    void soakFollowsTheSlowestPart() { // τ ln(40/0.2)
        QVERIFY_NEAR(soakMinutes(10), 10 * std::log(200.0), 1e-12);
        change([&](Edit& edit) {
            Configuration rig = *currentConfiguration(edit.document(), asked_.bench);
            rig.slowestMinutes = 15;
            edit.put(rig);
        });
        QVERIFY_NEAR(minutesOf(mountSteps(asked_.document, asked_.study, nullptr), StepKind::soak),
                     15 * std::log(200.0), 1e-9);
    }
    void everyLoadIsSoakedAndMeasured() {
        change([&](Edit& edit) {
            Load second;
            second.study = asked_.study;
            second.position = 1;
            second.name = "light";
            const Id<Load> light = edit.add(second);
            usePreset(edit, asked_.study, ProtocolPreset::air);
            ProtocolStep own;
            own.study = asked_.study;
            own.load = light;
            own.position = 9;
            own.kind = StepKind::soak;
            own.minutes = 7;
            edit.add(own);
        });
        const auto steps = mountSteps(asked_.document, asked_.study, nullptr);
        QVERIFY_NEAR(minutesOf(steps, StepKind::soak), 20 + 7, 1e-12); // the light load has its own soak
        QVERIFY_NEAR(minutesOf(steps, StepKind::measure), 10, 1e-12);
    }
    void filmIsCycledAndRestsForANight() {
        Material film = story::materialNamed("Driftwood 52");
        film.kind = MaterialClass::phaseChange;
        const auto steps = mountSteps(asked_.document, asked_.study, &film);
        QVERIFY_NEAR(minutesOf(steps, StepKind::condition), 3 * 30, 1e-12);
        QVERIFY_NEAR(minutesOf(steps, StepKind::rest), 480, 1e-12);
    }
    void timesAreStatedForAClassOrAll() {
        change([&](Edit& edit) {
            edit.add(StepTime{{}, asked_.bench, StepKind::clean, std::nullopt, 21});
            edit.add(StepTime{{}, asked_.bench, StepKind::clean, MaterialClass::putty, 33});
        });
        QVERIFY_NEAR(handStep(asked_.document, asked_.bench, StepKind::clean, MaterialClass::paste).minutes,
                     21, 1e-12);
        const StepOccurrence putty =
            handStep(asked_.document, asked_.bench, StepKind::clean, MaterialClass::putty);
        QVERIFY_NEAR(putty.minutes, 33, 1e-12);
        QCOMPARE(putty.source, TimeSource::stated);
        QCOMPARE(handStep(asked_.document, asked_.bench, StepKind::apply, MaterialClass::paste).source,
                 TimeSource::typical);
    }
    void turnaroundIsLearnedFromRecordings() {
        change([&](Edit& edit) {
            for (int i = 0; i < 5; ++i) { // 60 minutes each, 40 between them, two evenings
                Recording recording;
                recording.bench = asked_.bench;
                recording.start = Instant{thirdOfMarch.ms + (i < 3 ? i : i + 20) * 100 * 60'000LL};
                recording.durationS = 3600;
                edit.add(recording);
            }
        });
        const auto learned = learnedTurnaround(asked_.document, asked_.bench);
        QVERIFY(learned);
        QCOMPARE(learned->count, 3); // the night between is none
        QVERIFY_NEAR(learned->minutes, 40, 1e-9);
        double manualWork = 0;
        for (StepKind kind : {StepKind::remove, StepKind::clean, StepKind::apply})
            manualWork += handStep(asked_.document, asked_.bench, kind, MaterialClass::paste).minutes;
        QVERIFY_NEAR(manualWork, 40, 1e-9);
    }
    void protocolsAreCompared() {
        Id<Study> copy;
        change([&](Edit& edit) {
            copy = duplicateStudy(edit, asked_.study);
            usePreset(edit, copy, ProtocolPreset::liquid);
        });
        const auto lines = protocolDifference(asked_.document, asked_.study, copy);
        QVERIFY(std::any_of(lines.begin(), lines.end(), [](const ProtocolDifference& line) {
            return words::text(line.step) == "soak" && words::text(*line.here).starts_with("20 min")
                   && words::text(*line.there).starts_with("75 min");
        }));
        QVERIFY(protocolDifference(asked_.document, asked_.study, asked_.study).empty());
    }
    void everyGateIsWorded() { // the page offers all of them
        for (std::size_t i = 0; i < Words<GateKind>::all.size(); ++i) {
            ProtocolStep step;
            step.kind = StepKind::condition;
            step.minutes = 30;
            step.gate = static_cast<GateKind>(i);
            step.gateValue = 61.5;
            step.unattended = true;
            const std::string text = words::text(stepMessage(step));
            QVERIFY2(text.starts_with("30 min"), text.c_str());
            QCOMPARE(text.find("61.5") != std::string::npos, step.gate != GateKind::none);
        }
        change([&](Edit& edit) { // and compared
            usePreset(edit, asked_.study, ProtocolPreset::air);
            for (const ProtocolStep& step : protocolOf(edit.document(), asked_.study)) {
                ProtocolStep gated = step;
                gated.gate = GateKind::chipBelow;
                gated.gateValue = 35;
                edit.put(gated);
            }
        });
        Id<Study> copy;
        change([&](Edit& edit) {
            copy = duplicateStudy(edit, asked_.study);
            usePreset(edit, copy, ProtocolPreset::air);
        });
        QVERIFY(!protocolDifference(asked_.document, asked_.study, copy).empty());
    }
    void aBriefTellsTubeDosePatternAndTorque() {
        change([&](Edit& edit) {
            const Configuration& rig = *currentConfiguration(edit.document(), asked_.bench);
            for (const Site* site : edit.document().where(&Site::configuration, rig.id)) {
                Site sized = *site;
                sized.width = sized.length = Millimetre{30};
                edit.put(sized);
                break;
            }
            Question question = *firstQuestion(edit.document(), asked_.study);
            Site sized = *edit.document().find(question.site);
            sized.width = sized.length = Millimetre{30};
            edit.put(sized);
            const auto lots = edit.document().all<Lot>();
            for (const auto& [id, lot] : lots) {
                Lot full = lot;
                full.content = full.remaining = 4;
                edit.put(full);
            }
            Plan plan = planFor(edit.document(), asked_.study);
            plan.pattern = ApplicationPattern::cross;
            plan.torque = NewtonMetre{0.6};
            layPlan(edit, question, plan, thirdOfMarch);
        });
        const MountBrief brief =
            briefOf(asked_.document, *plannedSlots(asked_.document, asked_.study).front(), thirdOfMarch);
        QVERIFY(brief.material && brief.lot && brief.lot->material == brief.material->id);
        QCOMPARE(brief.pattern, ApplicationPattern::cross);
        QVERIFY_NEAR(*brief.torqueNm, 0.6, 1e-12);
        // 30 × 30 mm, 35 µm, 2.6 g/mL, half as much again
        QVERIFY_NEAR(*brief.grams, 30 * 30 * 0.035 * 1.5 * 2.6 / 1000, 1e-9);
        QVERIFY(brief.gramsAreUsual);
        QVERIFY(!brief.steps.empty() && !brief.cautions.empty());
    }
};
IBUKI_TEST(TestStepTimes)
#include "tst_step_times.moc"
