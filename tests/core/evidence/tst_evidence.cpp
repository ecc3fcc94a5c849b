// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/domain/lookup.h"
#include "core/domain/plan.h"
#include "core/domain/run_reduction.h"
#include "core/evidence/check_mounts.h"
#include "core/evidence/evidence.h"
#include "core/evidence/power_sweep.h"
#include "core/setup/study_setup.h"
#include "store/table/tidy_row.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <set>

using namespace ibuki;

class TestEvidence : public QObject {
    Q_OBJECT

    static Question question(const story::Asked& asked) {
        return *firstQuestion(asked.document, asked.study);
    }

    static void sameFigures(const Comparison& a, const Comparison& b) {
        QCOMPARE(a.groups.size(), b.groups.size());
        for (std::size_t i = 0; i < a.groups.size(); ++i) {
            QCOMPARE(a.groups[i].mountMeans, b.groups[i].mountMeans);
            QCOMPARE(a.groups[i].tier, b.groups[i].tier);
        }
        QCOMPARE(a.pairs.size(), b.pairs.size());
        for (std::size_t i = 0; i < a.pairs.size(); ++i) {
            QCOMPARE(a.pairs[i].difference, b.pairs[i].difference);
            QCOMPARE(a.pairs[i].pAdjusted, b.pairs[i].pAdjusted);
        }
    }
    /// The story's nine mounts, all but those named rejected.
    static story::Asked oneMountEach(const std::set<std::string>& kept) {
        auto asked = story::measured();
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            Mount copy = *mount;
            copy.rejected = !kept.contains(copy.name);
            asked.document.put(copy);
        }
        return asked;
    }
    static Load lightLoad(Id<Study> study) {
        Load load;
        load.study = study;
        load.name = "90 W";
        load.planned = false;
        return load;
    }

private slots:
    void nineLogsBecomeAComparison() {
        const auto asked = story::measured();
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QCOMPARE(evidence.rows.size(), std::size_t{9});
        QVERIFY(evidence.comparison.has_value());
        QCOMPARE(evidence.comparison->groups.size(), std::size_t{3});
        for (const GroupSummary& group : evidence.comparison->groups) QCOMPARE(group.mounts, 3);
        QCOMPARE(evidence.comparison->groups[evidence.comparison->tiers.front().front()].name,
                 std::string("Tern 11"));
    }
    void runsUnderOtherLoadsAreLeftOutAndThatIsTold() {
        auto asked = story::measured();
        QVERIFY(!hasFlag(gatherEvidence(asked.document, question(asked)).comparison->flags, "other-loads"));
        Run run = *runsOf(asked.document, mountsOf(asked.document, asked.bench).front()->id).front();
        Edit edit(asked.document, "another load");
        run.id = {};
        run.load = edit.add(lightLoad(asked.study));
        RunReduction stored;
        stored.run = edit.add(run);
        stored.reduction = asked.document.all<RunReduction>().begin()->second.reduction;
        edit.add(stored);
        apply(asked.document, edit.finish());
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QCOMPARE(evidence.rows.size(), std::size_t{10});
        QCOMPARE(comparedRuns(evidence.rows, evidence.load, evidence.design, question(asked)).size(),
                 std::size_t{9});
        QVERIFY(hasFlag(evidence.comparison->flags, "other-loads"));
    }
    void unlikePowersInOneMeanAreSaid() {
        for (const double share : {1.049, 1.051}) {
            auto asked = story::measured();
            const Mount* mount = mountsOf(asked.document, asked.bench).front();
            Run run = *runsOf(asked.document, mount->id).front();
            Edit edit(asked.document, "another run");
            Reduction other = *reductionOf(asked.document, run.id);
            for (LoadReduction& load : other.loads) load.powerW = share * load.powerW.value();
            run.id = {};
            const Id<Run> second = edit.add(run);
            edit.add(RunReduction::with({}, second, std::move(other), {}));
            apply(asked.document, edit.finish());
            const bool isUnlike = share > 1.05;
            const Evidence evidence = gatherEvidence(asked.document, question(asked));
            QCOMPARE(hasFlag(evidence.comparison->flags, "loads-unlike"), isUnlike);
            QCOMPARE(hasUnlikeTwin(asked.document, *asked.document.find(second)), isUnlike);
            const auto mounts = mountsOfUnlikePower(evidence.rows, evidence.load);
            QCOMPARE(mounts.size(), std::size_t(isUnlike ? 1 : 0));
            if (isUnlike) QCOMPARE(mounts.front(), mount->name);
            // A later look is averaged with nobody.
            Edit later(asked.document, "later");
            Run look = *asked.document.find(second);
            look.purpose = Purpose::check;
            later.put(look);
            apply(asked.document, later.finish());
            QVERIFY(
                !hasFlag(gatherEvidence(asked.document, question(asked)).comparison->flags, "loads-unlike"));
            QVERIFY(!hasUnlikeTwin(asked.document, look));
        }
    }
    void aQuestionMayNameItsLoad() {
        auto asked = story::measured();
        const auto names = loadChoices(asked.document, asked.study);
        QCOMPARE(names.size(), std::size_t{1});
        Question named = question(asked);
        named.load = names.front();
        QCOMPARE(gatherEvidence(asked.document, named).comparison->groups.size(), std::size_t{3});
        Edit edit(asked.document, "another load");
        named.load = edit.add(lightLoad(asked.study));
        apply(asked.document, edit.finish());
        const Evidence none = gatherEvidence(asked.document, named);
        QVERIFY(!none.comparison);
        QVERIFY(none.reason && words::text(*none.reason).find("under \"90 W\"") != std::string::npos);
    }
    void twoLevelsOfOneNameStayTwo() { // remove one of three and add one: both are called "level 3" then
        auto asked = story::measured();
        const Comparison before = *gatherEvidence(asked.document, question(asked)).comparison;
        for (const Level* level : levelsOf(asked.document, question(asked).id)) {
            Level renamed = *level;
            renamed.name = "level 3";
            asked.document.put(renamed);
        }
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QCOMPARE(evidence.comparison->groups.size(), std::size_t{3});
        std::set<Id<Level>> levels;
        for (const GroupSummary& group : evidence.comparison->groups) {
            QCOMPARE(group.name, std::string("level 3"));
            levels.insert(levelOfGroup(evidence, group));
        }
        QCOMPARE(levels.size(), std::size_t{3});
        sameFigures(*evidence.comparison, before);
    }
    void namesChangeNoFigure() {
        auto asked = story::measured();
        Question q = question(asked);
        q.referenceLevel = levelsOf(asked.document, q.id)[1]->id;
        asked.document.put(q);
        const Comparison before = *gatherEvidence(asked.document, q).comparison;
        Edit edit(asked.document, "rename everything");
        const auto rename = [&]<class E>() {
            for (const auto& [id, entity] : asked.document.all<E>()) {
                E renamed = entity;
                renamed.name = "one name";
                edit.put(renamed);
            }
        };
        rename.operator()<Material>();
        rename.operator()<Lot>();
        rename.operator()<Level>();
        rename.operator()<Mount>();
        rename.operator()<Load>();
        rename.operator()<Site>();
        apply(asked.document, edit.finish());
        sameFigures(*gatherEvidence(asked.document, q).comparison, before);
    }
    void aRenamedLoadKeepsItsRuns() {
        auto asked = story::measured();
        Load load = *loadsOf(asked.document, asked.study).front();
        Question named = question(asked);
        named.load = load.id;
        load.name = "all threads";
        asked.document.put(load);
        const Evidence evidence = gatherEvidence(asked.document, named);
        QCOMPARE(comparedRuns(evidence.rows, evidence.load, evidence.design, named).size(), std::size_t{9});
        QCOMPARE(asked.document.find(evidence.rows.front().load)->name, std::string("all threads"));
    }
    void aLoadOfALaterStudyMayBeTheSameStep() {
        auto asked = story::measured();
        Edit edit(asked.document, "a later study");
        const Id<Study> copy = duplicateStudy(edit, asked.study);
        apply(asked.document, edit.finish());
        const Load& first = *loadsOf(asked.document, asked.study).front();
        const Load& later = *loadsOf(asked.document, copy).front();
        QVERIFY(first.id != later.id);
        QCOMPARE(loadIdentity(later), first.id);
        Question named = question(asked);
        named.load = later.id; // its runs were made under the first one
        const Evidence evidence = gatherEvidence(asked.document, named);
        QCOMPARE(comparedRuns(evidence.rows, evidence.load, evidence.design, named).size(), std::size_t{9});
    }
    void aRejectedMountIsListedButNotCompared() {
        auto asked = story::measured();
        Mount mount = *mountsOf(asked.document, asked.bench).front();
        mount.rejected = true;
        mount.reason = "slipped";
        asked.document.put(mount);
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QCOMPARE(evidence.rows.size(), std::size_t{9});
        QCOMPARE(evidence.excludedMounts, 1);
        QCOMPARE(tidyRow(asked.document, question(asked), evidence.rows.front()).reason,
                 std::string("slipped"));
        QCOMPARE(comparedRuns(evidence.rows, evidence.load, evidence.design, question(asked)).size(),
                 std::size_t{8});
    }
    void checkMountsAreInNoGroupMean() {
        auto asked = story::measured();
        Slot slot = *slotsOf(asked.document, asked.study).front();
        slot.kind = SlotKind::checkMount;
        asked.document.put(slot);
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QCOMPARE(comparedRuns(evidence.rows, evidence.load, evidence.design, question(asked)).size(),
                 std::size_t{8});
    }
    void withdrawnRecordingsDisappear() {
        auto asked = story::measured();
        Recording recording = asked.document.all<Recording>().begin()->second;
        recording.withdrawn = true;
        asked.document.put(recording);
        QCOMPARE(runRows(asked.document, question(asked)).size(), std::size_t{8});
    }
    void responseFollowsTheQuestion() {
        const auto asked = story::measured();
        Question q = question(asked);
        const RunRow raw = runRows(asked.document, q).front();
        QVERIFY_NEAR(*raw.response, *raw.deltaK, 0);
        q.normalisation = Normalisation::perWatt;
        QVERIFY_NEAR(*runRows(asked.document, q).front().response, *raw.deltaK / *raw.powerW, 1e-12);
        q.normalisation = Normalisation::atNominalPower;
        QVERIFY(!runRows(asked.document, q).front().response); // no nominal power stated
        q.nominalPower = Watt{300};
        QVERIFY_NEAR(*runRows(asked.document, q).front().response, 300 * *raw.deltaK / *raw.powerW, 1e-9);
        q.normalisation = Normalisation::raw;
        q.reference = ReferenceTemperature::coolant;
        QVERIFY(!runRows(asked.document, q).front().response); // none logged
        q.metric = Metric::vrm;                                // not logged
        QVERIFY(!runRows(asked.document, q).front().response);
    }
    void saysWhatIsMissing() {
        const auto asked = story::ask();
        QVERIFY(gatherEvidence(asked.document, question(asked)).reason.has_value());
    }
    void oneMountEachIsProvisional() {
        const auto one = oneMountEach({"Tern 11 1", "Plover 4 1"});
        const Evidence evidence = gatherEvidence(one.document, question(one));
        QVERIFY(evidence.comparison && isProvisional(*evidence.comparison));
        // pastes of a finished study on this bench, or what is usual for pastes: 0.4 K, known
        QVERIFY_NEAR(*evidence.comparison->pooledSd, 0.4, 1e-12);
        QVERIFY_NEAR(*evidence.comparison->pairs.front().se, 0.4 * std::sqrt(2), 1e-12);
        QVERIFY(hasFlag(evidence.comparison->flags, "scatter-assumed"));
        const Evidence measured = measuredEvidence(one.document, question(one));
        QVERIFY(!measured.comparison && measured.mounts->groups.size() == 2); // they are shown all the same
        QVERIFY(words::complaint(*measured.reason).find("twice") != std::string::npos);
    }
    void aSingleMaterialIsShownWithoutAVerdict() {
        const auto one = oneMountEach({"Tern 11 1", "Tern 11 2"});
        const Evidence evidence = gatherEvidence(one.document, question(one));
        QVERIFY(!evidence.comparison);
        QCOMPARE(evidence.mounts->groups.size(), std::size_t{1});
        QCOMPARE(evidence.mounts->groups.front().mounts, 2);
        QVERIFY(evidence.reason);
    }
    void othersAreHeldAgainstAReferenceLevel() {
        const auto asked = story::measured();
        Question q = question(asked);
        q.referenceLevel = levelsOf(asked.document, q.id)[1]->id;
        const Comparison comparison = *gatherEvidence(asked.document, q).comparison;
        QCOMPARE(comparison.pairs.size(), std::size_t{2});
        for (const PairComparison& pair : comparison.pairs) {
            QCOMPARE(pair.adjustment, Adjustment::dunnett);
            QCOMPARE(comparison.groups[pair.b].name, std::string("Plover 4"));
        }
    }
    void declaredLooksShareTheError() {
        auto asked = story::measured();
        Plan plan = *planOf(asked.document, asked.study);
        plan.plannedLooks = 2;
        asked.document.put(plan);
        QVERIFY_NEAR(gatherEvidence(asked.document, question(asked)).comparison->options.confidence,
                     1 - 0.0294, 1e-12);
    }
    void levelsAreComparedInsideTheSecondFactor() {
        auto asked = story::measured();
        Question q = question(asked);
        q.secondFactor = Factor::cooler;
        Edit edit(asked.document, "coolers");
        std::vector<Id<Level>> coolers;
        for (const char* name : {"tall", "flat"}) {
            Level level;
            level.question = q.id;
            level.name = name;
            level.ofSecond = true;
            coolers.push_back(edit.add(level));
        }
        std::map<Id<Level>, int> seen;
        for (const Slot* slot : slotsOf(asked.document, asked.study)) {
            Slot on = *slot;
            on.second =
                coolers[seen[*on.level]++ < 2 ? 0 : 1]; // two mounts under the tall one, one under the flat
            edit.put(on);
        }
        apply(asked.document, edit.finish());
        const Comparison comparison = *gatherEvidence(asked.document, q).comparison;
        QCOMPARE(comparison.groups.size(), std::size_t{3});
        QCOMPARE(comparison.pairs.size(), std::size_t{3});
        for (const GroupSummary& group : comparison.groups) QVERIFY(group.name.ends_with(", tall"));
        QVERIFY(hasFlag(comparison.flags, "interaction"));
        const Evidence evidence = gatherEvidence(asked.document, q);
        QCOMPARE(evidence.factors->cells.size(), std::size_t{6});
        QCOMPARE(evidence.factors->df, 3.0); // nine mounts in six cells
        QCOMPARE(evidence.factors->marginal.size(), std::size_t{3});
        QVERIFY(
            hasFlag(comparison.flags, "not-compared")); // single mounts under the flat one tell no scatter
    }
    void checkMountsTellWhetherTheBenchMoved() {
        auto asked = story::measured();
        const Evidence before = gatherEvidence(asked.document, question(asked));
        const CheckEvidence none = checkEvidence(question(asked), before);
        QVERIFY(!none.health && none.reason->code == "health-few");
        Edit edit(asked.document, "checks"); // the two last mounts of every material become check mounts
        std::map<Id<Level>, int> seen;
        for (const Slot* slot : slotsOf(asked.document, asked.study)) {
            if (++seen[*slot->level] == 1) continue;
            Slot check = *slot;
            check.kind = SlotKind::checkMount;
            check.level.reset();
            edit.put(check);
        }
        apply(asked.document, edit.finish());
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        const CheckEvidence found = checkEvidence(question(asked), evidence);
        QCOMPARE(found.mounts.size(), std::size_t{6});
        QCOMPARE(found.health->points.size(), std::size_t{6});
        QCOMPARE(found.health->baseline, 3);
        for (std::size_t i = 1; i < 6; ++i)
            QVERIFY(found.health->points[i].order > found.health->points[i - 1].order);
        for (const Id<Mount> mount : found.touched) { // compared mounts only
            QVERIFY(std::none_of(found.mounts.begin(), found.mounts.end(),
                                 [&](Id<Mount> m) { return m == mount; }));
            QVERIFY(found.health->moved);
        }
    }
    void mountsUnderTwoLoadsTellLinesOverPower() {
        auto asked = story::measured();
        const Evidence one = gatherEvidence(asked.document, question(asked));
        QCOMPARE(QString::fromStdString(powerSweep(question(asked), one).reason->code),
                 QString("sweep-one-load"));
        Edit edit(asked.document,
                  "another load"); // every mount once more, at half the power and half the rise
        const Id<Load> light = edit.add(lightLoad(asked.study));
        for (const Mount* mount : mountsOf(asked.document, asked.bench)) {
            const Run& first = *runsOf(asked.document, mount->id).front();
            Run run = first;
            run.id = {};
            run.load = light;
            Reduction half = *reductionOf(asked.document, first.id);
            for (LoadReduction& load : half.loads) {
                load.powerW = *load.powerW / 2;
                for (auto& [metric, value] : load.metrics)
                    if (value.deltaK) value.deltaK = *value.deltaK / 2;
            }
            edit.add(RunReduction::with({}, edit.add(run), half, {}));
        }
        apply(asked.document, edit.finish());
        const PowerSweep sweep = powerSweep(question(asked), gatherEvidence(asked.document, question(asked)));
        QVERIFY(sweep.lines);
        QCOMPARE(sweep.points.size(), std::size_t{18});
        QCOMPARE(sweep.lines->df, 6.0); // nine mounts in three groups
        for (const SweepLine& line : sweep.lines->lines) {
            QVERIFY_NEAR(line.intercept, 0, 1e-6); // half the power, half the rise: lines through nought
            QVERIFY(line.slope > 0.1 && line.slope < 1);
        }
    }
    void stepsOfAChainStandInTheirOrder() {
        auto asked = story::measured();
        Study study = *asked.document.find(asked.study);
        study.began = StudyTemplate::stepByStep;
        asked.document.put(study);
        const auto levels = levelsOf(asked.document, question(asked).id);
        Level last = *levels.front();
        last.position = 10; // Tern 11 becomes the last step
        asked.document.put(last);
        const Evidence evidence = gatherEvidence(asked.document, question(asked));
        QVERIFY(evidence.inSequence);
        QCOMPARE(evidence.comparison->groups.back().name, std::string("Tern 11"));
    }
    void twoChangesUnderTheLidAreTold() {
        auto asked = story::measured();
        Question q = question(asked);
        for (const Site* site : asked.document.where(&Site::configuration,
                                                     currentConfiguration(asked.document, asked.bench)->id))
            if (site->kind == SiteKind::dieLid) q.site = site->id;
        QVERIFY(hasFlag(gatherEvidence(asked.document, q).comparison->flags,
                        "two-changes")); // the upper layers differ
        QVERIFY(!hasFlag(gatherEvidence(asked.document, question(asked)).comparison->flags, "two-changes"));
    }
    void settingsComeFromQuestionBenchAndRun() {
        auto asked = story::measured();
        Configuration configuration = *currentConfiguration(asked.document, asked.bench);
        configuration.temperatureLimit = Celsius{88};
        asked.document.put(configuration);
        Run run = asked.document.all<Run>().begin()->second;
        run.enteredAmbient = Celsius{21};
        Question q = question(asked);
        q.metric = Metric::coreAverage;
        const ReduceSettings settings = settingsFor(asked.document, run, &q);
        QCOMPARE(settings.metric, ReduceSettings{}.metric); // what is asked is no business of the reduction
        QCOMPARE(*settings.limitC, 88.0);
        QCOMPARE(settings.ambient->temperatureC, 21.0);
    }
};

IBUKI_TEST(TestEvidence)
#include "tst_evidence.moc"
