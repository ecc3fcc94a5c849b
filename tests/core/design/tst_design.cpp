// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/design.h"
#include "core/setup/question_setup.h"
#include "support/laid.h"
#include "support/test_class.h"

#include <algorithm>
#include <stdexcept>

using namespace ibuki;

class TestDesign : public QObject {
    Q_OBJECT

    static Design designOf(const story::Laid& laid) {
        return ibuki::designOf(laid.asked.document, *firstQuestion(laid.asked.document, laid.asked.study));
    }
    static std::vector<std::string> namesOf(const Design& design) {
        std::vector<std::string> names;
        for (const DesignCell& cell : design.cells) names.push_back(cell.name);
        return names;
    }
    /// The first slot of that kind gets a mount of that day.
    static Id<Mount> mountFirst(story::Laid& laid, SlotKind kind, const std::string& day,
                                const std::string& rejectedBecause = {}) {
        Id<Mount> made;
        laid.change([&](Edit& edit) {
            for (const Slot* slot : slotsOf(edit.document(), laid.asked.study)) {
                if (slot->kind != kind || slot->mount) continue;
                Mount mount;
                mount.configuration = currentConfiguration(edit.document(), laid.asked.bench)->id;
                mount.block = day;
                mount.rejected = !rejectedBecause.empty();
                mount.reason = rejectedBecause;
                made = edit.add(mount);
                Slot filled = *slot;
                filled.mount = made;
                edit.put(filled);
                return;
            }
        });
        return made;
    }

private slots:
    void aLevelIsACellAndASlotAUnit() {
        const story::Laid laid(2);
        const Design design = designOf(laid);
        QCOMPARE(namesOf(design), (std::vector<std::string>{"Tern 11", "Plover 4", "Dunlin C"}));
        QCOMPARE(design.units.size(), std::size_t{6});
        std::array<int, 3> seen{};
        for (const DesignUnit& unit : design.units) {
            QVERIFY(unit.cell && !unit.mount && !unit.skipped);
            QVERIFY(!isMade(laid.asked.document, unit));
            ++seen[*unit.cell];
        }
        QCOMPARE(seen, (std::array{2, 2, 2}));
        QCOMPARE(design.factors.size(), std::size_t{1});
        QCOMPARE(design.factors.front().stratum, Stratum::betweenMounts);
        QVERIFY(!design.factors.front().inSequence);
    }
    void aCheckMountIsAUnitOfNoCell() {
        const story::Laid laid(2, 2);
        int checks = 0;
        for (const DesignUnit& unit : designOf(laid).units) {
            if (unit.kind != SlotKind::checkMount) continue;
            QVERIFY(!unit.cell);
            ++checks;
        }
        QCOMPARE(checks, 2);
    }
    void twoFactorsCross() {
        story::Laid laid;
        laid.change([&](Edit& edit) {
            Question question = *firstQuestion(edit.document(), laid.asked.study);
            question.secondFactor = Factor::cooler;
            edit.put(question);
            for (const char* name : {"low", "tall"}) {
                Level level;
                level.question = question.id;
                level.name = name;
                level.ofSecond = true;
                edit.add(level);
            }
        });
        const Design design = designOf(laid);
        QCOMPARE(namesOf(design),
                 (std::vector<std::string>{"Tern 11, low", "Tern 11, tall", "Plover 4, low", "Plover 4, tall",
                                           "Dunlin C, low", "Dunlin C, tall"}));
        for (const DesignCell& cell : design.cells) QVERIFY(cell.second.has_value());
        QCOMPARE(design.factors.size(), std::size_t{2});
        for (const DesignUnit& unit : design.units) QVERIFY(!unit.cell); // laid before there was a second one
    }
    void loadsAndLaterReadingsVaryWithinAMount() {
        story::Laid laid;
        QVERIFY(!isSeenAgain(laid.asked.document, laid.asked.study));
        laid.change([&](Edit& edit) {
            Load more = *loadsOf(edit.document(), laid.asked.study).front();
            more.id = {};
            more.position = 1;
            more.name = "light";
            edit.add(more);
        });
        laid.comeBackAfter("2 h, 1 d");
        const Design design = designOf(laid);
        QCOMPARE(design.factors.size(), std::size_t{3});
        QCOMPARE(design.factors[1].stratum, Stratum::withinMount);
        QVERIFY(!design.factors[1].inSequence);
        QVERIFY(design.factors[2].inSequence); // time cannot be shuffled
        QVERIFY(isSeenAgain(laid.asked.document, laid.asked.study));
    }
    void stepsThatBuildOnEachOtherAreInSequence() {
        story::Laid laid;
        laid.change([&](Edit& edit) {
            Study study = *edit.document().find(laid.asked.study);
            study.began = StudyTemplate::stepByStep;
            edit.put(study);
        });
        QVERIFY(isInSequence(*laid.asked.document.find(laid.asked.study)));
        QVERIFY(designOf(laid).factors.front().inSequence);
    }
    void whatIsRejectedIsNotMade() {
        story::Laid laid;
        mountFirst(laid, SlotKind::level, "2031-03-04");
        mountFirst(laid, SlotKind::level, "2031-03-04", "slipped");
        int made = 0;
        int there = 0;
        for (const DesignUnit& unit : designOf(laid).units) {
            there += unit.mount ? 1 : 0;
            made += isMade(laid.asked.document, unit) ? 1 : 0;
        }
        QCOMPARE(there, 2);
        QCOMPARE(made, 1);
    }
    void mountsThatWereNotPlannedAreBlockedByTheirDays() {
        story::Laid laid;
        laid.change([&](Edit& edit) {
            for (const Slot* slot : slotsOf(edit.document(), laid.asked.study)) {
                Slot loose = *slot;
                loose.block = 0;
                edit.put(loose);
            }
        });
        for (const char* day : {"2031-03-04", "2031-03-04", "2031-03-06", "2031-03-07"})
            mountFirst(laid, SlotKind::level, day);
        std::vector<int> blocks;
        for (const DesignUnit& unit : designOf(laid).units)
            if (unit.mount) blocks.push_back(unit.block);
        QCOMPARE(blocks, (std::vector{1, 1, 2, 3}));
    }
    void aSkippedSlotStaysAUnitAndSaysSo() {
        story::Laid laid;
        laid.change([&](Edit& edit) {
            Slot slot = *slotsOf(edit.document(), laid.asked.study).front();
            slot.skippedBecause = "the tube was empty";
            edit.put(slot);
        });
        const Design design = designOf(laid);
        QVERIFY(design.units.front().skipped);
        QVERIFY(design.units.front().cell.has_value());
        QVERIFY(!design.units.back().skipped);
    }
    /// A group is known by its levels, wherever they stand: its id is that of no other, and outlives a new
    /// order.
    void aGroupIsKnownByItsLevels() {
        Design design;
        for (std::int64_t level = 1; level <= 20; ++level) {
            design.cells.push_back({Id<Level>{level}, std::nullopt, "one"});
            for (std::int64_t second = 1; second <= 20; ++second)
                design.cells.push_back({Id<Level>{level}, Id<Level>{second}, "two"});
        }
        std::vector<std::int64_t> ids;
        for (std::size_t i = 0; i < design.cells.size(); ++i) {
            ids.push_back(groupId(design.cells[i]));
            QCOMPARE(placeOfGroup(design, ids.back()), i); // the first one of that id: all ids differ
        }
        QCOMPARE(ids.front(), std::int64_t{1}); // of one level its own
        std::reverse(design.cells.begin(), design.cells.end());
        for (std::size_t i = 0; i < ids.size(); ++i)
            QVERIFY(placeOfGroup(design, ids[i]) == ids.size() - 1 - i);
        QVERIFY_THROWS_EXCEPTION(std::out_of_range, cellOfGroup(design, 777));
    }
    void levelsOfOneNameAreTwoCells() {
        story::Laid laid;
        laid.change([&](Edit& edit) {
            const auto levels = levelsOf(edit.document(), laid.question.id);
            Level same = *levels[1];
            same.name = levels[0]->name;
            edit.put(same);
        });
        const Design design = designOf(laid);
        QCOMPARE(design.cells[0].name, design.cells[1].name);
        QVERIFY(!(design.cells[0] == design.cells[1]));
        std::set<std::size_t> seen;
        for (const DesignUnit& unit : design.units) seen.insert(*unit.cell);
        QCOMPARE(seen.size(), std::size_t{3});
    }
    void aStudyWithoutSlotsHasCellsAndNoUnits() {
        const story::Asked asked = story::ask();
        const Design design = ibuki::designOf(asked.document, *firstQuestion(asked.document, asked.study));
        QCOMPARE(design.cells.size(), std::size_t{3});
        QVERIFY(design.units.empty());
    }
};

IBUKI_TEST(TestDesign)
#include "tst_design.moc"
