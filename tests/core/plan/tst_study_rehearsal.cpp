// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/lookup.h"
#include "core/evidence/scatter.h"
#include "core/plan/study_rehearsal.h"
#include "core/setup/plan_setup.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestStudyRehearsal : public QObject {
    Q_OBJECT

private slots:
    void thePlanStandsBesideCommonPractice() {
        const auto asked = story::measured();
        const Question& question = *firstQuestion(asked.document, asked.study);
        Plan plan = planFor(asked.document, asked.study);
        plan.mountsPerLevel = 5;
        plan.statedScatter = Kelvin{0.4};
        const StudyRehearsal study = studyRehearsal(asked.document, question, plan, 1.5, nullptr);
        QCOMPARE(study.scenario.materials.size(), levelsOf(asked.document, question.id).size());
        QCOMPARE(study.scenario.materials[1].deltaK - study.scenario.materials[0].deltaK, 1.5);
        QCOMPARE(study.scenario.mountSdK, 0.4);
        QVERIFY(study.scenario.ambientSdK > 0 && study.basis.size() == 4);
        const Rehearsal found = rehearse(study.scenario, {.campaigns = 4'000});
        const auto of = [&](const std::string& name) {
            for (std::size_t i = 0; i < study.scenario.practices.size(); ++i)
                if (study.scenario.practices[i].name == name) return found.practices[i];
            return RehearsedOutcome{};
        };
        QVERIFY(of("plan").wrongBest < 0.03 && of("plan").totalMounts == 15);
        QVERIFY(of("one").wrongBest > of("plan").wrongBest);
        QVERIFY(of("room").rightBest < of("listed").rightBest);
        // Everything at its limit: lots are drawn. 4 standard errors of 4,000 campaigns.
        QVERIFY_NEAR(of("limit").rightBest, 1 / 3.0, 0.03);
    }
    void aQuestionByKelvinPerWattIsRehearsedInKelvin() { // at the power of its load: the same campaigns
        auto asked = story::ask();
        const Question raw = *firstQuestion(asked.document, asked.study);
        Edit edit(asked.document, "by the watt");
        Question perWatt = raw;
        perWatt.normalisation = Normalisation::perWatt;
        double powerW = 150;
        for (const Load* load : asked.document.where(&Load::study, asked.study))
            if (load->target) powerW = load->target->value;
        perWatt.margin = Kelvin{raw.margin.value / powerW};
        edit.put(perWatt);
        Document other = asked.document;
        apply(other, edit.finish());
        const Plan plan = planFor(asked.document, asked.study);
        const RehearsalScenario a = studyRehearsal(asked.document, raw, plan, 1, nullptr).scenario;
        const RehearsalScenario b = studyRehearsal(other, perWatt, plan, 1, nullptr).scenario;
        QVERIFY(a.mountSdK > 0.1); // a usual scatter of mounts
        QVERIFY_NEAR(b.mountSdK, a.mountSdK, 1e-9);
        QVERIFY_NEAR(b.marginK, a.marginK, 1e-9);
        QVERIFY_NEAR(b.limitDeltaK.value(), a.limitDeltaK.value(), 1e-9);
        QVERIFY_NEAR(kelvinPerUnit(other, perWatt), powerW, 0);
        QVERIFY_NEAR(kelvinPerUnit(asked.document, raw), 1, 0);
    }
    void moreMountsTellMore() {
        const auto asked = story::measured();
        const Question& question = *firstQuestion(asked.document, asked.study);
        Plan plan = planFor(asked.document, asked.study);
        plan.statedScatter = Kelvin{0.4};
        const StudyRehearsal study = studyRehearsal(asked.document, question, plan, 1, nullptr);
        const RehearsalScenario curve = overMounts(study.scenario, 6);
        QCOMPARE(curve.practices.size(), std::size_t{6});
        const Rehearsal found = rehearse(curve, {.campaigns = 2'000});
        QCOMPARE(found.practices[0].noCall, 1.0); // one mount each is no verdict
        QVERIFY(found.practices[5].rightBest > found.practices[2].rightBest + 0.1);
    }
};

IBUKI_TEST(TestStudyRehearsal)
#include "tst_study_rehearsal.moc"
