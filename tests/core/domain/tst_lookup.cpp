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
