// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/story.h"
#include "support/test_class.h"

#include <QtTest>

using namespace ibuki;

class TestLookup : public QObject {
    Q_OBJECT
private slots:
    void theNewestConfigurationCounts() {
        auto asked = story::ask();
        const Id<Configuration> first = currentConfiguration(asked.document, asked.bench)->id;
        Edit edit(asked.document, "new fan");
        Configuration later = *asked.document.find(first);
        later.cooler = "another";
        const Id<Configuration> second = edit.add(later);
        apply(asked.document, edit.finish());
        QCOMPARE(currentConfiguration(asked.document, asked.bench)->id, second);
        QVERIFY(!currentConfiguration(asked.document, Id<Bench>{999}));
    }
    void layersComeChipFirst() {
        const auto asked = story::ask();
        const auto layers = layersOf(asked.document, currentConfiguration(asked.document, asked.bench)->id);
        for (std::size_t i = 0; i < layers.size(); ++i) QCOMPARE(layers[i]->position, int(i));
    }
    void aMountKnowsItsMaterialOnlyWhereItWasApplied() {
        const auto asked = story::measured();
        const Mount* mount = mountsOf(asked.document, asked.bench).front();
        const auto sites = asked.document.where(&Site::configuration, mount->configuration);
        int known = 0;
        for (const Site* site : sites) known += materialAt(asked.document, mount->id, site->id) ? 1 : 0;
        QCOMPARE(known, 1);
        QVERIFY(!materialAt(asked.document, Id<Mount>{999}, sites.front()->id));
    }
    void anApplicationAsFoundHasNoMaterial() {
        auto asked = story::measured();
        const Mount* mount = mountsOf(asked.document, asked.bench).front();
        const Id<Site> site = firstQuestion(asked.document, asked.study)->site;
        Application application = *applicationAt(asked.document, mount->id, site);
        application.lot.reset();
        asked.document.put(application);
        QVERIFY(applicationAt(asked.document, mount->id, site));
        QVERIFY(!materialAt(asked.document, mount->id, site));
    }
    void mountsOfAnotherBenchAreNotMine() {
        auto asked = story::measured();
        Edit edit(asked.document, "second bench");
        const Id<Bench> other = addBench(edit, BenchTemplate::heaterBlock, "block-H");
        apply(asked.document, edit.finish());
        QVERIFY(mountsOf(asked.document, other).empty());
        QCOMPARE(mountsOf(asked.document, asked.bench).size(), std::size_t{9});
        QCOMPARE(benchOf(asked.document, *mountsOf(asked.document, asked.bench).front())->id, asked.bench);
    }
    void aMountIsAppliedWhenTheLastApplicationWasDone() {
        auto asked = story::measured();
        const Mount* mount = mountsOf(asked.document, asked.bench).front();
        const Id<Mount> id = mount->id;
        Application first =
            *applicationAt(asked.document, id, firstQuestion(asked.document, asked.study)->site);
        first.start = parseInstant("2031-03-04 18:00");
        first.end.reset();
        asked.document.put(first);
        QCOMPARE(appliedAt(asked.document, id)->ms, parseInstant("2031-03-04 18:00")->ms); // no end is stated
        first.end = parseInstant("2031-03-04 18:10");
        asked.document.put(first);
        QCOMPARE(appliedAt(asked.document, id)->ms, parseInstant("2031-03-04 18:10")->ms);
        Edit edit(asked.document, "another site");
        Application second = first;
        second.id = {};
        second.end = parseInstant("2031-03-04 18:25");
        MountApplication use;
        use.mount = id;
        use.application = edit.add(second);
        edit.add(use);
        apply(asked.document, edit.finish());
        QCOMPARE(appliedAt(asked.document, id)->ms, parseInstant("2031-03-04 18:25")->ms);
        QVERIFY(!appliedAt(asked.document, Id<Mount>{999}));
    }
    void theNewestMountOfAnyBenchIsFound() {
        auto asked = story::measured();
        Instant latest{0};
        for (const auto& [id, mount] : asked.document.all<Mount>()) latest = std::max(latest, *mount.at);
        QCOMPARE(newestMount(asked.document).ms, latest.ms);
        QCOMPARE(newestMount(Document()).ms, std::int64_t{0});
    }
    void aVariantHasTheRigOfWhatItVaries() {
        auto asked = story::ask();
        const Id<Configuration> base = currentConfiguration(asked.document, asked.bench)->id;
        Edit edit(asked.document, "variant");
        Configuration tall = *asked.document.find(base);
        tall.id = {};
        tall.variantOf = base;
        const Id<Configuration> variant = edit.add(tall);
        apply(asked.document, edit.finish());
        QCOMPARE(rigOf(asked.document, variant), base);
        QCOMPARE(rigOf(asked.document, base), base);
        QCOMPARE(currentConfiguration(asked.document, asked.bench)->id,
                 base); // a variant is not the bench's own
        Level level;
        level.configuration = variant;
        QCOMPARE(configurationFor(asked.document, asked.bench, &level, nullptr)->id, variant);
        QCOMPARE(configurationFor(asked.document, asked.bench, nullptr, &level)->id, variant);
        QCOMPARE(configurationFor(asked.document, asked.bench, nullptr, nullptr)->id, base);
    }
    void aLoadOfAnEarlierStudyIsProposedByNameAndCountsById() {
        auto asked = story::ask();
        Edit edit(asked.document, "second study");
        const Load first = *loadsOf(edit.document(), asked.study).front();
        Study again = *edit.document().find(asked.study);
        again.id = {};
        again.name = "again";
        const Id<Study> study = edit.add(again);
        Load same;
        same.study = study;
        same.name = first.name;
        same.sameAs = earlierLoad(edit.document(), study, first.name);
        const Id<Load> id = edit.add(same);
        apply(asked.document, edit.finish());
        QCOMPARE(asked.document.find(id)->sameAs, std::optional(first.id));
        QCOMPARE(loadIdentity(*asked.document.find(id)), loadIdentity(first));
        QVERIFY(!earlierLoad(asked.document, study, "no such load"));
        Load renamed = *asked.document.find(id); // from then on names do not count
        renamed.name = "another name";
        QCOMPARE(loadIdentity(renamed), first.id);
    }
    void levelsThatAreChangedWithoutReMountingShareAMount() {
        Level a;
        a.id = Id<Level>{1};
        a.question = Id<Question>{7};
        a.withoutRemount = true;
        Level b = a;
        b.id = Id<Level>{2};
        QVERIFY(shareMount(&a, &b) && shareMount(&b, &a));
        QVERIFY(!shareMount(&a, &a) && !shareMount(&a, nullptr) && !shareMount(nullptr, nullptr));
        Level remounted = b;
        remounted.withoutRemount = false;
        QVERIFY(!shareMount(&a, &remounted));
        Level elsewhere = b;
        elsewhere.question = Id<Question>{8};
        QVERIFY(!shareMount(&a, &elsewhere));
    }
    void slotsAndRunsAreFound() {
        const auto asked = story::measured();
        for (const Slot* slot : slotsOf(asked.document, asked.study)) {
            QCOMPARE(slotOf(asked.document, asked.study, *slot->mount), slot);
            QCOMPARE(runsOf(asked.document, *slot->mount).size(), std::size_t{1});
            QVERIFY(reductionOf(asked.document, runsOf(asked.document, *slot->mount).front()->id));
        }
        QVERIFY(!slotOf(asked.document, asked.study, Id<Mount>{999}));
        QVERIFY(!reductionOf(asked.document, Id<Run>{999}));
        QVERIFY(!firstQuestion(asked.document, Id<Study>{999}));
    }
};

IBUKI_TEST(TestLookup)
#include "tst_lookup.moc"
