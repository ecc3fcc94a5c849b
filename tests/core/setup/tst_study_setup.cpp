// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"
#include "core/plan/power_analysis.h"
#include "core/setup/bench_template.h"
#include "core/setup/plan_setup.h"
#include "core/setup/question_setup.h"
#include "core/setup/study_setup.h"
#include "support/entities.h"
#include "support/story.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

namespace {

const Instant dayOfSetup = *parseInstant("2031-03-03");

/// A lidded bench and three materials with two lots each.
struct Shelf {
    Document document;
    Id<Bench> bench;
    std::vector<Id<Material>> materials;

    explicit Shelf(BenchTemplate which = BenchTemplate::liddedChip) {
        Edit edit(document, "stock");
        bench = addBench(edit, which, "node-2");
        for (const char* name : {"Tern 11", "Plover 4", "Dunlin C"}) {
            materials.push_back(edit.add(story::materialNamed(name)));
            edit.add(story::lotOf(materials.back(), std::string(name) + ", original"));
            edit.add(story::lotOf(materials.back(), std::string(name) + ", look-alike"));
        }
        apply(document, edit.finish());
    }
    Id<Study> ask(StudyTemplate which, std::size_t count) {
        Edit edit(document, "ask");
        const Id<Study> study =
            addStudy(edit,
                     {which,
                      bench,
                      "study",
                      {materials.begin(), materials.begin() + static_cast<std::ptrdiff_t>(count)}},
                     dayOfSetup);
        apply(document, edit.finish());
        return study;
    }
};

} // namespace

class TestStudySetup : public QObject {
    Q_OBJECT
private slots:
    void everyKindCanBePlanned_data() {
        QTest::addColumn<int>("which");
        for (const StudyTemplateInfo& info : studyTemplates())
            if (info.which != StudyTemplate::own)
                QTest::newRow(std::string(word(info.which)).c_str()) << static_cast<int>(info.which);
    }
    void everyKindCanBePlanned() {
        QFETCH(int, which);
        const auto kind = static_cast<StudyTemplate>(which);
        Shelf shelf;
        const Id<Study> study = shelf.ask(kind, static_cast<std::size_t>(templateInfo(kind).leastMaterials));
        const Question question = *firstQuestion(shelf.document, study);
        QCOMPARE(question.factor, templateInfo(kind).factor);
        const Plan plan = *planOf(shelf.document, study);
        const PowerAnalysis analysis = powerAnalysisOf(shelf.document, question, plan, dayOfSetup);
        QVERIFY(analysis.totalMounts >= 2);
        Edit edit(shelf.document, "plan");
        layPlan(edit, question, plan, dayOfSetup);
        apply(shelf.document, edit.finish());
        QCOMPARE(static_cast<int>(plannedSlots(shelf.document, study).size()), analysis.totalMounts);
        for (const Slot* slot : plannedSlots(shelf.document, study))
            QVERIFY(slot->kind == SlotKind::baseline || slot->level);
    }
    void everyKindSaysHowManyMaterialsItNeeds() {
        Shelf shelf;
        for (const StudyTemplateInfo& info : studyTemplates()) {
            if (info.leastMaterials == 0) continue;
            Edit edit(shelf.document, "ask");
            QVERIFY_THROWS_EXCEPTION(InputError,
                                     addStudy(edit, {info.which, shelf.bench, "study", {}}, dayOfSetup));
        }
    }
    void beforeComesFirstAndOnlyOnce() {
        Shelf shelf;
        const Id<Study> study = shelf.ask(StudyTemplate::beforeAndAfter, 1);
        const Question question = *firstQuestion(shelf.document, study);
        const auto order =
            orderMounts(orderInput(shelf.document, question, *planOf(shelf.document, study), dayOfSetup));
        QCOMPARE(order.front().level, std::optional<std::size_t>(0));
        QCOMPARE(
            std::count_if(order.begin(), order.end(), [](const OrderedMount& m) { return m.level == 0U; }),
            std::ptrdiff_t{1});
    }
    void equivalenceIsWhatTheCheaperOneMustShow() {
        Shelf shelf;
        const Id<Study> study = shelf.ask(StudyTemplate::asGood, 2);
        QCOMPARE(firstQuestion(shelf.document, study)->goal, Goal::equivalence);
    }
    void twoFactorsHaveACellForEachPair() {
        Shelf shelf;
        const Id<Study> study = shelf.ask(StudyTemplate::materialByCooler, 3);
        const Design design = designOf(shelf.document, *firstQuestion(shelf.document, study));
        QCOMPARE(design.cells.size(), std::size_t{6});
        QCOMPARE(design.factors.size(), std::size_t{2});
        QCOMPARE(design.cells[1].name, std::string("Tern 11, other cooler"));
        // Chances are those of the verdict: three materials inside each cooler, never across.
        const PowerAnalysis analysis = powerAnalysisOf(shelf.document, *firstQuestion(shelf.document, study),
                                                       *planOf(shelf.document, study), dayOfSetup);
        QCOMPARE(analysis.pairs.size(), std::size_t{6});
        SampleSizeInput inside{3, analysis.scatter.sd, 1.0};
        QVERIFY(std::abs(*analysis.chance - sampleSizeAt(inside, 3).achievedPower) < 1e-9);
    }
    void underTheLidNeedsALid() {
        Shelf bare(BenchTemplate::bareDie);
        Edit edit(bare.document, "ask");
        QVERIFY_THROWS_EXCEPTION(
            InputError,
            addStudy(edit, {StudyTemplate::underTheLid, bare.bench, "study", bare.materials}, dayOfSetup));
        Shelf lidded;
        const Question question = *firstQuestion(lidded.document, lidded.ask(StudyTemplate::underTheLid, 2));
        QCOMPARE(lidded.document.find(question.site)->kind, SiteKind::dieLid);
    }
    void originalAndLookAlikeAreTwoLots() {
        Shelf shelf;
        const auto levels =
            levelsOf(shelf.document,
                     firstQuestion(shelf.document, shelf.ask(StudyTemplate::originalOrLookAlike, 1))->id);
        QCOMPARE(levels.size(), std::size_t{2});
        QVERIFY(levels[0]->lot && levels[1]->lot && *levels[0]->lot != *levels[1]->lot);
    }
    void aCopyKeepsReferenceLoadsPlanAndProtocol() {
        Shelf shelf;
        const Id<Study> study = shelf.ask(StudyTemplate::rankMaterials, 3);
        Edit edit(shelf.document, "copy");
        Question question = *firstQuestion(edit.document(), study);
        question.referenceLevel = levelsOf(edit.document(), question.id)[1]->id;
        question.frozen = true;
        edit.put(question);
        addQuestion(edit, question.id, question.site, true);
        const Id<Study> copy = duplicateStudy(edit, study);
        apply(shelf.document, edit.finish());
        const Question& twin = *firstQuestion(shelf.document, copy);
        QVERIFY(!twin.frozen && twin.referenceLevel);
        QCOMPARE(shelf.document.find(*twin.referenceLevel)->question, twin.id);
        QCOMPARE(shelf.document.where(&Question::study, copy).back()->levelsFrom, std::optional(twin.id));
        QVERIFY(planOf(shelf.document, copy));
        QVERIFY(planOf(shelf.document, copy)->seed != planOf(shelf.document, study)->seed);
        QCOMPARE(loadsOf(shelf.document, copy).size(), std::size_t{1});
    }
    void aLevelTakesItsPlannedMountsAlong() {
        Shelf shelf;
        const Id<Study> study = shelf.ask(StudyTemplate::rankMaterials, 3);
        const Question question = *firstQuestion(shelf.document, study);
        Edit edit(shelf.document, "plan");
        layPlan(edit, question, *planOf(shelf.document, study), dayOfSetup);
        removeUnusedLevel(edit, levelsOf(edit.document(), question.id)[0]->id);
        apply(shelf.document, edit.finish());
        QCOMPARE(plannedSlots(shelf.document, study).size(), std::size_t{6});
        QCOMPARE(levelsOf(shelf.document, question.id).size(), std::size_t{2});
    }
    void aNameIsProposedFromWhatIsCompared() {
        const story::Asked asked = story::ask();
        const auto named = [&](const std::vector<std::string>& materials) {
            return proposedName(asked.document, "Rank materials", materials);
        };
        QCOMPARE(named({}), std::string("Rank materials"));
        QCOMPARE(named({"Tern 11", "Dunlin C"}), std::string("Rank materials: Tern 11, Dunlin C"));
        QCOMPARE(named({"a", "b", "c", "d"}), std::string("Rank materials (4)"));
        QCOMPARE(proposedName(asked.document, "Three pastes", {}), std::string("Three pastes 2"));
    }
};

IBUKI_TEST(TestStudySetup)
#include "tst_study_setup.moc"
