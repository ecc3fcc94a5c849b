// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/domain/run_reduction.h"
#include "core/setup/plan_setup.h"
#include "core/setup/question_setup.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <QtTest>

using namespace ibuki;

class TestImport : public QObject {
    Q_OBJECT

    /// Three materials on two coolers, the second in a rig of its own; laid on the tape.
    static story::Asked byCooler() {
        story::Asked asked = story::ask();
        Edit edit(asked.document, "by cooler");
        std::vector<Id<Material>> materials;
        for (const auto& [id, material] : asked.document.all<Material>()) materials.push_back(id);
        asked.study =
            addStudy(edit, {StudyTemplate::materialByCooler, asked.bench, "by cooler", materials}, {});
        const Question question = *firstQuestion(edit.document(), asked.study);
        Level tall = *secondLevelsOf(edit.document(), question.id).back();
        tall.name = "tall";
        tall.configuration = addVariant(edit, asked.bench, "tall");
        edit.put(tall);
        Level low = *secondLevelsOf(edit.document(), question.id).front();
        low.name = "low";
        edit.put(low);
        layPlan(edit, question, planFor(edit.document(), asked.study), *parseInstant("2031-03-01"));
        apply(asked.document, edit.finish());
        return asked;
    }
    static Document brought(const story::Asked& asked, const std::vector<ImportedLog>& logs,
                            const std::vector<ImportRow>& rows) {
        Document document = asked.document;
        apply(document, importChanges(asked.document, asked.study, logs, rows).set);
        return document;
    }
    static const Level* secondNamed(const story::Asked& asked, const std::string& name) {
        for (const Level* level :
             secondLevelsOf(asked.document, firstQuestion(asked.document, asked.study)->id))
            if (level->name == name) return level;
        return nullptr;
    }

private slots:
    void theSecondLevelComesFromTheNameOrThePlan() {
        const auto asked = byCooler();
        auto logs = story::nineLogs();
        logs.resize(3);
        logs[0].fileName = "tern-11_tall.csv";
        logs[1].fileName = "plover-4.csv";
        logs[2].fileName = "evening.csv";
        const auto rows = proposeImport(asked.document, asked.study, logs);
        QCOMPARE(rows[0].second, std::optional(secondNamed(asked, "tall")->id));
        QVERIFY(!rows[0].doubt);
        QCOMPARE(rows[0].mountName, std::string("Tern 11, tall 1"));
        QVERIFY(rows[1].second.has_value());
        QCOMPARE(rows[1].doubt->code, std::string("import-doubt.second-planned"));
        QVERIFY(rows[2].level.has_value()); // what comes next
        QCOMPARE(rows[2].doubt->code, std::string("import-doubt.planned"));
        QVERIFY(rows[2].level != rows[1].level || rows[2].second != rows[1].second);
        const Document document = brought(asked, logs, rows);
        int filled = 0;
        for (const Slot* slot : slotsOf(document, asked.study)) {
            if (!slot->mount) continue;
            ++filled;
            QVERIFY(slot->level && slot->second);
            const Mount* mount = document.find(slot->mount);
            const Configuration* rig = document.find(mount->configuration);
            QCOMPARE(rig->variantOf.has_value(), *slot->second == secondNamed(asked, "tall")->id);
        }
        QCOMPARE(filled, 3);
        QCOMPARE(slotsOf(document, asked.study).size(), slotsOf(asked.document, asked.study).size());
    }
    void aSecondLevelHasToBeSaid() {
        const auto asked = byCooler();
        auto logs = story::nineLogs();
        logs.resize(1);
        auto rows = proposeImport(asked.document, asked.study, logs);
        rows[0].second.reset();
        try {
            importChanges(asked.document, asked.study, logs, rows);
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("import-no-level"));
            QVERIFY(words::text(error.message).find("cooler") != std::string::npos);
        }
    }
    void aCheckMountNeedsNoLevel() {
        auto asked = story::ask();
        Edit edit(asked.document, "plan");
        Plan plan = planFor(asked.document, asked.study);
        plan.checkWith = asked.document.all<Material>().begin()->first;
        plan.checkMounts = 2;
        putPlan(edit, plan);
        layPlan(edit, *firstQuestion(edit.document(), asked.study), plan, *parseInstant("2031-03-01"));
        apply(asked.document, edit.finish());
        auto logs = story::nineLogs();
        logs.resize(1);
        auto rows = proposeImport(asked.document, asked.study, logs);
        rows[0].kind = SlotKind::checkMount;
        rows[0].level.reset();
        const Document document = brought(asked, logs, rows);
        const Mount* mount = mountsOf(document, asked.bench).front();
        QCOMPARE(slotOf(document, asked.study, mount->id)->kind, SlotKind::checkMount);
        QCOMPARE(materialAt(document, mount->id, firstQuestion(document, asked.study)->site)->id,
                 *plan.checkWith);
    }
    void whatIsNotRemountedGoesOnWithItsApplication() {
        auto asked = story::ask();
        Edit edit(asked.document, "together");
        for (const Level* level : levelsOf(asked.document, firstQuestion(asked.document, asked.study)->id)) {
            if (level->name == "Dunlin C") continue;
            Level changed = *level;
            changed.withoutRemount = true;
            edit.put(changed);
        }
        apply(asked.document, edit.finish());
        auto logs = story::nineLogs();
        logs.resize(3);
        const Document document = brought(asked, logs, proposeImport(asked.document, asked.study, logs));
        QCOMPARE(document.all<Mount>().size(), std::size_t{3});
        QCOMPARE(document.all<Application>().size(), std::size_t{2});
        int carried = 0;
        for (const auto& [id, use] : document.all<MountApplication>())
            carried += use.use == ApplicationUse::continued ? 1 : 0;
        QCOMPARE(carried, 1);
        // Every block begins with an application of its own, whatever the order of the files.
        auto nine = story::nineLogs();
        for (int order = 0; order < 2; ++order) {
            const Document all = brought(asked, nine, proposeImport(asked.document, asked.study, nine));
            QCOMPARE(all.all<Mount>().size(), std::size_t{9});
            QCOMPARE(all.all<Application>().size(), std::size_t{6});
            std::sort(nine.begin(), nine.end(),
                      [](const auto& a, const auto& b) { return a.fileName < b.fileName; });
        }
    }
    void proposesLevelMountAndTime() {
        const auto asked = story::ask();
        const auto logs = story::nineLogs();
        const auto rows = proposeImport(asked.document, asked.study, logs);
        QCOMPARE(rows.size(), std::size_t{9});
        QCOMPARE(asked.document.find(*rows[0].level)->name, std::string("Tern 11"));
        QCOMPARE(rows[0].mountName, std::string("Tern 11 1"));
        QCOMPARE(rows[3].mountName, std::string("Tern 11 2"));
        QCOMPARE(rows[1].at, logs[1].trace.start);
        QVERIFY(!rows[1].atAssumed);
    }
    void anUndatedLogTakesItsFilesTime() {
        const auto asked = story::ask();
        auto logs = story::nineLogs();
        logs.resize(1);
        logs[0].trace.start.reset();
        logs[0].fileTime = parseInstant("2031-05-01 12:00");
        const auto rows = proposeImport(asked.document, asked.study, logs);
        QCOMPARE(rows[0].at, logs[0].fileTime);
        QVERIFY(rows[0].atAssumed);
    }
    void anUnknownNameWantsALook() {
        const auto asked = story::ask();
        auto logs = story::nineLogs();
        logs.resize(1);
        logs[0].fileName = "evening.csv";
        const auto rows = proposeImport(asked.document, asked.study, logs);
        QVERIFY(!rows[0].level);
        QVERIFY(rows[0].doubt.has_value());
        try {
            importChanges(asked.document, asked.study, logs, rows);
            QFAIL("not refused");
        } catch (const InputError& error) {
            QCOMPARE(error.code, std::string("import-no-level"));
            QCOMPARE(error.where.file, std::string("evening.csv"));
        }
    }
    void theSameLogTwiceIsNotTakenAgain() {
        const auto asked = story::measured();
        const auto rows = proposeImport(asked.document, asked.study, story::nineLogs());
        QVERIFY(!rows[0].take);
        QVERIFY(rows[0].sameAs.has_value());
    }
    void twoFilesOfTheSameBytesAreOneLog() { // they would be two mounts that agree too well
        const auto asked = story::ask();
        auto logs = story::nineLogs();
        logs.push_back(logs[2]);
        logs.back().fileName = "copy of " + logs[2].fileName;
        const auto rows = proposeImport(asked.document, asked.study, logs);
        QVERIFY(rows[2].take && !rows[2].twinOf);
        QVERIFY(!rows[9].take);
        QCOMPARE(rows[9].twinOf, std::optional<std::size_t>(2));
        QCOMPARE(rows[9].doubt, std::optional(Message{"import-doubt.twin", {{"file", logs[2].fileName}}}));
        QCOMPARE(brought(asked, logs, rows).all<Mount>().size(), std::size_t{9});
    }
    void oneChangeSetBringsEverything() {
        const auto asked = story::measured();
        QCOMPARE(asked.document.all<Recording>().size(), std::size_t{9});
        QCOMPARE(asked.document.all<Mount>().size(), std::size_t{9});
        QCOMPARE(asked.document.all<Run>().size(), std::size_t{9});
        QCOMPARE(asked.document.all<RunReduction>().size(), std::size_t{9});
        QCOMPARE(slotsOf(asked.document, asked.study).size(), std::size_t{9});
        QVERIFY(firstQuestion(asked.document, asked.study)->frozen);
        const auto mounts = mountsOf(asked.document, asked.bench);
        for (std::size_t i = 1; i < mounts.size(); ++i) QVERIFY(*mounts[i - 1]->at <= *mounts[i]->at);
        QVERIFY(
            materialAt(asked.document, mounts.front()->id, firstQuestion(asked.document, asked.study)->site));
    }
    void plannedSlotsAreFilledFirst() {
        auto asked = story::ask();
        Edit plan(asked.document, "plan");
        const auto levels = levelsOf(asked.document, firstQuestion(asked.document, asked.study)->id);
        Slot slot;
        slot.study = asked.study;
        slot.position = 1;
        slot.level = levels[0]->id;
        const Id<Slot> planned = plan.add(slot);
        apply(asked.document, plan.finish());
        auto logs = story::nineLogs();
        logs.resize(1);
        apply(asked.document, importChanges(asked.document, asked.study, logs,
                                            proposeImport(asked.document, asked.study, logs))
                                  .set);
        QVERIFY(asked.document.find(planned)->mount.has_value());
        QCOMPARE(slotsOf(asked.document, asked.study).size(), std::size_t{1});
    }
    void aRepeatedRunJoinsItsMount() {
        auto asked = story::measured();
        auto logs = story::nineLogs();
        logs.resize(1);
        logs[0].sha256 = "another";
        auto rows = proposeImport(asked.document, asked.study, logs);
        rows[0].mount = mountsOf(asked.document, asked.bench).front()->id;
        apply(asked.document, importChanges(asked.document, asked.study, logs, rows).set);
        QCOMPARE(asked.document.all<Mount>().size(), std::size_t{9});
        QCOMPARE(runsOf(asked.document, *rows[0].mount).size(), std::size_t{2});
        QCOMPARE(runsOf(asked.document, *rows[0].mount).back()->repeat, 2);
    }
    void takingItBackHidesTheRecordings() {
        auto asked = story::ask();
        const auto logs = story::nineLogs();
        const auto changes = importChanges(asked.document, asked.study, logs,
                                           proposeImport(asked.document, asked.study, logs));
        apply(asked.document, changes.set);
        apply(asked.document, inverse(changes.set));
        QCOMPARE(asked.document.all<Mount>().size(), std::size_t{0});
        QCOMPARE(asked.document.all<Recording>().size(), std::size_t{9});
        for (const auto& [id, recording] : asked.document.all<Recording>()) QVERIFY(recording.withdrawn);
        QVERIFY(proposeImport(asked.document, asked.study, logs)[0].take); // and may be brought in again
    }
    void statingATimeReordersTheRecord() {
        auto asked = story::measured();
        const Id<Mount> last = mountsOf(asked.document, asked.bench).back()->id;
        Edit edit(asked.document, "time");
        placeMountAt(edit, last, *parseInstant("2031-01-01 08:00"));
        apply(asked.document, edit.finish());
        QCOMPARE(mountsOf(asked.document, asked.bench).front()->id, last);
    }
    void everyTemplateDescribesAWholePath_data() {
        QTest::addColumn<int>("index");
        for (int i = 0; i < int(benchTemplates.size()); ++i) QTest::addRow("template %d", i) << i;
    }
    void everyTemplateDescribesAWholePath() {
        QFETCH(int, index);
        Document document;
        Edit edit(document, "bench");
        const Id<Bench> bench = addBench(edit, benchTemplates[std::size_t(index)].which, "b");
        apply(document, edit.finish());
        const auto layers = layersOf(document, currentConfiguration(document, bench)->id);
        QCOMPARE(layers.front()->kind, LayerKind::chip);
        QCOMPARE(layers.back()->kind, LayerKind::room);
        for (const Layer* layer : layers)
            QCOMPARE(layer->kind == LayerKind::interface, layer->site.has_value());
    }
    void layersCanBeAddedAndRemoved() {
        auto asked = story::ask();
        const auto configuration = currentConfiguration(asked.document, asked.bench)->id;
        const auto before = layersOf(asked.document, configuration);
        const Layer chip = *before.front();
        Edit edit(asked.document, "layers");
        const Id<Layer> added = addLayer(edit, chip, LayerKind::interface);
        QCOMPARE(layersOf(edit.document(), configuration)[1]->id, added);
        removeLayer(edit, added);
        removeLayer(edit, chip.id); // stays
        QCOMPARE(layersOf(edit.document(), configuration).size(), before.size());
        QVERIFY(edit.finish().empty());
    }
    void aPlannedMountBringsAllItsQuestionsAlong() {
        auto asked = story::ask();
        const Question first = *firstQuestion(asked.document, asked.study);
        Edit edit(asked.document, "plan");
        Id<Site> dieLid;
        for (const Site* site : edit.document().where(&Site::configuration,
                                                      currentConfiguration(edit.document(), asked.bench)->id))
            if (site->kind == SiteKind::dieLid) dieLid = site->id;
        const Id<Question> other = addQuestion(edit, first.id, dieLid, false);
        for (const Level* like : levelsOf(asked.document, first.id)) {
            Level level;
            level.question = other;
            level.name = like->name + " under the lid";
            level.material = like->material;
            level.torque = NewtonMetre{0.7};
            addLevel(edit, level);
        }
        Plan plan = planFor(edit.document(), asked.study);
        plan.torque = NewtonMetre{0.6};
        layPlan(edit, first, plan, *parseInstant("2031-03-01"));
        apply(asked.document, edit.finish());
        const auto logs = story::nineLogs();
        apply(asked.document, importChanges(asked.document, asked.study, logs,
                                            proposeImport(asked.document, asked.study, logs))
                                  .set);
        QCOMPARE(slotsOf(asked.document, asked.study).size(), std::size_t{9}); // planned slots were filled
        QVERIFY(plannedSlots(asked.document, asked.study).empty());
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            QVERIFY(materialAt(asked.document, mount->id, first.site));
            QVERIFY(materialAt(asked.document, mount->id, dieLid));
            QCOMPARE(mount->torque->value, 0.6);
        }
        for (const Question* question : asked.document.where(&Question::study, asked.study))
            QVERIFY(question->frozen);
    }
    void aDuplicatedStudyStartsFresh() {
        auto asked = story::measured();
        Edit edit(asked.document, "duplicate");
        const Id<Study> copy = duplicateStudy(edit, asked.study);
        apply(asked.document, edit.finish());
        QCOMPARE(levelsOf(asked.document, firstQuestion(asked.document, copy)->id).size(), std::size_t{3});
        QVERIFY(!firstQuestion(asked.document, copy)->frozen);
        QVERIFY(slotsOf(asked.document, copy).empty());
    }
};

IBUKI_TEST(TestImport)
#include "tst_import.moc"
