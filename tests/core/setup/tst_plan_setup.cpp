// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/distributions/power.h"
#include "core/evidence/evidence.h"
#include "core/plan/mount_brief.h"
#include "core/plan/power_analysis.h"
#include "core/setup/plan_setup.h"
#include "core/setup/question_setup.h"
#include "support/laid.h"
#include "support/near.h"
#include "support/test_class.h"

#include <map>

using namespace ibuki;
using story::Laid;
using story::now;

class TestPlanSetup : public QObject {
    Q_OBJECT
private slots:
    void aPlanStandsOnTheTape() {
        const Laid laid(3, 2);
        QCOMPARE(laid.planned().size(), std::size_t{11});
        QCOMPARE(laid.planned().front()->kind, SlotKind::checkMount);
        QCOMPARE(laid.planned().back()->kind, SlotKind::checkMount);
        for (const Slot* slot : laid.planned()) QVERIFY(slot->plannedFor.has_value());
        QCOMPARE(laid.asked.document.find(laid.asked.study)->state, StudyState::planned);
    }
    void levelsWithoutRemountingStandSideBySideAndSkipTheHands() {
        Laid laid(4);
        laid.change([&](Edit& edit) {
            for (const Level* level : levelsOf(laid.asked.document, laid.question.id)) {
                if (level->name == "Dunlin C") continue;
                Level changed = *level;
                changed.withoutRemount = true;
                edit.put(changed);
            }
        });
        const double apart = powerAnalysisOf(story::ask().document, laid.question,
                                             planFor(laid.asked.document, laid.asked.study), now)
                                 .schedule.manualMinutes;
        Plan plan = planFor(laid.asked.document, laid.asked.study);
        laid.lay(plan);
        const std::string names = laid.names();
        QCOMPARE(names.size(), std::size_t{12});
        for (std::size_t block = 0; block < 12; block += 3) {
            const std::string three = names.substr(block, 3);
            QVERIFY2(three[1] != 'D', three.c_str()); // T and P are not parted
        }
        const PowerAnalysis analysis = powerAnalysisOf(laid.asked.document, laid.question, plan, now);
        QVERIFY(analysis.schedule.manualMinutes < apart);
        int stays = 0;
        for (const Slot* slot : laid.planned()) {
            const MountBrief brief = briefOf(laid.asked.document, *slot, now);
            if (!brief.staysMounted) continue;
            ++stays;
            for (const StepOccurrence& step : brief.steps) QVERIFY(step.kind > StepKind::rest);
        }
        QCOMPARE(stays, 4);
    }
    void aRigOfItsOwnStandsOnTheBrief() {
        Laid laid;
        laid.change([&](Edit& edit) {
            Level level = *levelsOf(laid.asked.document, laid.question.id).front();
            level.configuration = addVariant(edit, laid.asked.bench, "tall cooler");
            edit.put(level);
        });
        QCOMPARE(currentConfiguration(laid.asked.document, laid.asked.bench)->variantOf.has_value(), false);
        int own = 0;
        for (const Slot* slot : laid.planned())
            own += briefOf(laid.asked.document, *slot, now).rig.starts_with("tall cooler") ? 1 : 0;
        QCOMPARE(own, 3);
    }
    void planningAgainKeepsWhatWasMade() {
        story::Asked asked = story::measured();
        const Question question = *firstQuestion(asked.document, asked.study);
        Plan plan = planFor(asked.document, asked.study);
        plan.mountsPerLevel = 5;
        Edit edit(asked.document, "plan");
        layPlan(edit, question, plan, now);
        apply(asked.document, edit.finish());
        QCOMPARE(slotsOf(asked.document, asked.study).size(), std::size_t{15});
        QCOMPARE(plannedSlots(asked.document, asked.study).size(), std::size_t{6});
        std::map<Id<Level>, int> planned;
        for (const Slot* slot : plannedSlots(asked.document, asked.study)) ++planned[*slot->level];
        for (const auto& [level, count] : planned) QCOMPARE(count, 2);
    }
    void movingKeepsTheEveningsInTheirPlaces() {
        Laid laid;
        const auto before = laid.planned();
        const Id<Slot> last = before.back()->id;
        std::vector<std::optional<Instant>> dates;
        for (const Slot* slot : before) dates.push_back(slot->plannedFor);
        laid.change([&](Edit& edit) { moveSlot(edit, last, 0); });
        QCOMPARE(laid.planned().front()->id, last);
        for (std::size_t i = 0; i < dates.size(); ++i) QCOMPARE(laid.planned()[i]->plannedFor, dates[i]);
    }
    void everyChangeCanBeTakenBack() {
        Laid laid;
        const std::string before = laid.names();
        const auto undoes = [&](auto&& change) {
            const ChangeSet set = laid.change(change);
            QVERIFY(!set.empty());
            apply(laid.asked.document, inverse(set));
            QCOMPARE(laid.names(), before);
        };
        const Id<Slot> first = laid.planned().front()->id;
        undoes([&](Edit& edit) { skipSlot(edit, first, "tube is empty"); });
        undoes([&](Edit& edit) { moveSlot(edit, first, 5); });
        undoes([&](Edit& edit) { addMount(edit, laid.question, 1, true); });
        undoes([&](Edit& edit) { extendStudy(edit, laid.question, 2, now); });
        undoes([&](Edit& edit) { stopEarly(edit, laid.asked.study, "the voyage begins"); });
    }
    void skippingNeedsAReason() {
        Laid laid;
        const Id<Slot> first = laid.planned().front()->id;
        Edit edit(laid.asked.document, "skip");
        QVERIFY_THROWS_EXCEPTION(InputError, skipSlot(edit, first, "  "));
        laid.change([&](Edit& change) { skipSlot(change, first, "tube is empty"); });
        QCOMPARE(laid.planned().size(), std::size_t{8});
        laid.change([&](Edit& change) { takeUpAgain(change, first); });
        QCOMPARE(laid.planned().size(), std::size_t{9});
    }
    void theTapeIsLaidAsItStands() {
        Laid laid;
        const Plan plan = planFor(laid.asked.document, laid.asked.study);
        const Id<Slot> last = laid.planned().back()->id;
        laid.change([&](Edit& edit) { moveSlot(edit, last, 0); });
        const TapeEvenings tape = eveningsOfTape(laid.asked.document, laid.question, plan, now);
        QCOMPARE(tape.slotIds.size(), std::size_t{9});
        QCOMPARE(tape.slotIds.front(), last);
        QCOMPARE(tape.schedule.mounts.size(), std::size_t{9});
        Plan longer = plan;
        longer.hours = 2 * plan.hours;
        const TapeEvenings fewer = eveningsOfTape(laid.asked.document, laid.question, longer, now);
        QVERIFY(fewer.schedule.evenings.size() < tape.schedule.evenings.size());
    }
    void extendingAddsWholeBlocks() {
        Laid laid;
        laid.change([&](Edit& edit) { extendStudy(edit, laid.question, 2, now); });
        QCOMPARE(laid.planned().size(), std::size_t{15});
        QCOMPARE(planOf(laid.asked.document, laid.asked.study)->mountsPerLevel, 5);
        std::map<int, int> blocks;
        for (const Slot* slot : laid.planned()) ++blocks[slot->block];
        QCOMPARE(blocks.size(), std::size_t{5});
        for (const auto& [block, count] : blocks) QCOMPARE(count, 3);
        QVERIFY(!hasUnplannedLook(laid.asked.document, laid.asked.study)); // nobody saw the verdict
    }
    void extendingAfterAVerdictIsALook() {
        for (const auto& [declaredLooks, unplanned] : {std::pair{1, true}, std::pair{2, false}}) {
            story::Asked asked = story::measured();
            const Question question = *firstQuestion(asked.document, asked.study);
            Edit edit(asked.document, "plan");
            Plan plan = planFor(asked.document, asked.study);
            plan.mountsPerLevel = 4;
            plan.plannedLooks = declaredLooks;
            layPlan(edit, question, plan, now);
            apply(asked.document, edit.finish());
            const ChangeSet look = noteLook(asked.document, asked.study, now);
            QCOMPARE(look.changes.size(), std::size_t{1});
            apply(asked.document, look);
            QVERIFY(noteLook(asked.document, asked.study, now).empty()); // the same mounts seen again
            QVERIFY(!hasUnplannedLook(asked.document, asked.study));     // seen, but nothing was added
            Edit more(asked.document, "extend");
            extendStudy(more, question, 1, now);
            apply(asked.document, more.finish());
            QCOMPARE(hasUnplannedLook(asked.document, asked.study), unplanned);
        }
    }
    void looksSpendTheError() { // Pocock 1977, methods E.6
        QVERIFY_NEAR(nominalAlpha(0.05, 1), 0.05, 1e-12);
        QVERIFY_NEAR(nominalAlpha(0.05, 2), 0.0294, 1e-12);
        QVERIFY_NEAR(nominalAlpha(0.05, 4), 0.0182, 1e-12);
        QVERIFY_NEAR(nominalAlpha(0.01, 2), 0.005, 1e-12);
    }
    void scatterAloneTellsHowManyMore() { // Stein 1945, methods E.6: 7.05 becomes 8
        QCOMPARE(steinMounts(0.42666, 11, 0.5, 0.95, 4), 8);
        QCOMPARE(steinMounts(0.1, 11, 0.5, 0.95, 4), 4);
    }
    void stoppingClosesTheStudy() {
        Laid laid;
        laid.change([&](Edit& edit) { stopEarly(edit, laid.asked.study, "the voyage begins"); });
        QVERIFY(laid.planned().empty());
        QCOMPARE(laid.asked.document.find(laid.asked.study)->state, StudyState::closed);
    }
    void followUpsAreDueAfterTheirMounts() {
        story::Asked asked = story::measured();
        Plan plan = planFor(asked.document, asked.study);
        plan.followUps = parseDelays("24 h, 6 mo");
        Edit edit(asked.document, "later");
        layFollowUps(edit, plan);
        layFollowUps(edit, plan); // those there already stay
        apply(asked.document, edit.finish());
        const auto& all = asked.document.all<FollowUp>();
        QCOMPARE(all.size(), std::size_t{2}); // of the last mount: the others were taken off
        const FollowUp& first = all.begin()->second;
        const Mount* mount = asked.document.find(asked.document.find(first.slot)->mount);
        QCOMPARE(mount->id, mountsOf(asked.document, asked.bench).back()->id);
        QCOMPARE(dueAt(asked.document, first)->ms, mount->at->ms + 86'400'000);
    }
    void oneMaterialIsComparedWithItselfLater() { // break-in: the change inside a mount
        story::Asked asked = story::ask();
        Edit edit(asked.document, "ask");
        const Id<Study> study = addStudy(edit,
                                         {StudyTemplate::breakIn,
                                          asked.bench,
                                          "Does it break in?",
                                          {asked.document.all<Material>().begin()->first}},
                                         now);
        apply(asked.document, edit.finish());
        const Question question = *firstQuestion(asked.document, study);
        const PowerAnalysis analysis =
            powerAnalysisOf(asked.document, question, *planOf(asked.document, study), now);
        QVERIFY(analysis.isChange);
        // Paired t test of three mounts, σ = √2 · 0.2 K: the noncentral t of E.1 with n mounts.
        const double se = std::sqrt(2.0) * 0.2 / std::sqrt(3.0);
        QVERIFY_NEAR(*analysis.chance, pairPower(4.302652729749464, 2, 1 / se), 1e-9);
        // The mount stays on the bench for three days.
        QVERIFY(analysis.schedule.benchMinutes / 60 > 3 * 72);
        bool within = false;
        for (const DesignFactor& factor : designOf(asked.document, question).factors)
            within = within || factor.stratum == Stratum::withinMount;
        QVERIFY(within);
    }
    void otherQuestionsGetBalancedLevels() {
        Laid laid(4);
        laid.change([&](Edit& edit) {
            const Configuration& configuration = *currentConfiguration(edit.document(), laid.asked.bench);
            Id<Site> site;
            for (const Site* one : edit.document().where(&Site::configuration, configuration.id))
                if (one->kind == SiteKind::dieLid) site = one->id;
            const Id<Question> other = addQuestion(edit, laid.question.id, site, false);
            for (const char* name : {"pad A", "pad B"}) {
                Level level;
                level.question = other;
                level.name = name;
                addLevel(edit, level);
            }
        });
        laid.lay(*planOf(laid.asked.document, laid.asked.study));
        const Question other = *laid.asked.document.where(&Question::study, laid.asked.study).back();
        std::map<std::pair<Id<Level>, Id<Level>>, int> cells;
        for (const Slot* slot : laid.planned()) {
            const Level* level = levelIn(laid.asked.document, other, *slot);
            QVERIFY(level);
            ++cells[{*slot->level, level->id}];
        }
        QCOMPARE(cells.size(), std::size_t{6});
        for (const auto& [cell, count] : cells) QCOMPARE(count, 2);
    }
    void thePowerAnalysisCountsWhatItCosts() {
        const Laid laid(4, 2);
        const Plan plan = *planOf(laid.asked.document, laid.asked.study);
        const PowerAnalysis analysis = powerAnalysisOf(laid.asked.document, laid.question, plan, now);
        QCOMPARE(analysis.totalMounts, 14);
        QCOMPARE(analysis.pairs.size(), std::size_t{3});
        SampleSizeInput input{3, analysis.scatter.sd, laid.question.margin.value};
        const SampleSize same = sampleSizeAt(input, 4);
        QVERIFY_NEAR(*analysis.chance, same.achievedPower, 1e-9);
        QVERIFY_NEAR(*analysis.halfWidth, same.halfWidth, 1e-9);
        QVERIFY(analysis.schedule.manualMinutes > 0);
        QVERIFY(analysis.schedule.benchMinutes > analysis.schedule.manualMinutes);
        QVERIFY(!analysis.schedule.evenings.empty());
    }
    void moreMountsMoreChance() {
        const Laid laid;
        Plan plan = *planOf(laid.asked.document, laid.asked.study);
        double before = 0;
        for (int n = 2; n < 9; ++n) {
            plan.mountsPerLevel = n;
            const double chance = *powerAnalysisOf(laid.asked.document, laid.question, plan, now).chance;
            QVERIFY(chance > before);
            before = chance;
        }
    }
    void aBenchThatCannotResolveSaysWhatHelps() {
        Laid laid;
        Plan plan = *planOf(laid.asked.document, laid.asked.study);
        plan.statedScatter = Kelvin{1.5};
        const PowerAnalysis analysis = powerAnalysisOf(laid.asked.document, laid.question, plan, now);
        QVERIFY(!analysis.resolvable);
        QVERIFY(!analysis.improvements.empty());
        plan.statedScatter = Kelvin{0.3};
        QVERIFY(powerAnalysisOf(laid.asked.document, laid.question, plan, now).resolvable);
    }
    void finishedStudiesTellTheScatter() {
        story::Asked asked = story::measured();
        const Question question = *firstQuestion(asked.document, asked.study);
        Edit edit(asked.document, "next");
        Study closed = *edit.document().find(asked.study);
        closed.state = StudyState::closed;
        edit.put(closed);
        const Id<Study> next = duplicateStudy(edit, asked.study);
        apply(asked.document, edit.finish());
        const Scatter scatter =
            expectedScatter(asked.document, *firstQuestion(asked.document, next), nullptr);
        QCOMPARE(scatter.source, ScatterSource::finishedStudies);
        QVERIFY_NEAR(*scatter.df, 6, 1e-12);
        const Comparison own = *gatherEvidence(asked.document, question).comparison;
        QVERIFY_NEAR(scatter.sd, *own.pooledSd, 1e-12);
        QVERIFY(scatter.ci->lo < scatter.sd && scatter.sd<scatter.ci->hi&& * scatter.cautious> scatter.sd);
    }
    void aQuestionThatCannotBePlannedIsRefused() {
        story::Asked asked = story::ask();
        const Plan plan = planFor(asked.document, asked.study);
        const auto refusal = [&](const Question& question) -> std::string {
            try {
                powerAnalysisOf(asked.document, question, plan, now);
                return "";
            } catch (const InputError& error) {
                return error.code;
            }
        };
        Question question = *firstQuestion(asked.document, asked.study);
        QCOMPARE(refusal(question), std::string());
        question.margin = Kelvin{0};
        QCOMPARE(refusal(question), std::string("plan-margin"));
        question.margin = Kelvin{1};
        question.site = Id<Site>{9999};
        QCOMPARE(refusal(question), std::string("plan-site"));
        question.site = firstQuestion(asked.document, asked.study)->site;
        question.secondFactor = Factor::cooler;
        QCOMPARE(refusal(question), std::string("plan-levels"));
        question.secondFactor.reset();
        const auto levels = levelsOf(asked.document, question.id);
        Edit edit(asked.document, "fewer");
        for (std::size_t i = 1; i < levels.size(); ++i) edit.remove(levels[i]->id);
        apply(asked.document, edit.finish());
        QCOMPARE(refusal(question), std::string("plan-levels"));
    }
};
IBUKI_TEST(TestPlanSetup)
#include "tst_plan_setup.moc"
