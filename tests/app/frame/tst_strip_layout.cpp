// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawn/theme.h"
#include "app/frame/strip_layout.h"
#include "app/frame/tape_layout.h"
#include "core/domain/lookup.h"
#include "core/heat/seen_path.h"
#include "core/setup/bench_template.h"
#include "core/setup/plan_setup.h"
#include "support/near.h"
#include "support/story.h"
#include "support/test_class.h"

using namespace ibuki;

class TestStripLayout : public QObject {
    Q_OBJECT
private slots:
    void withoutABenchOneBlockAsksForOne() {
        const StripModel model = stripModel(Document{}, std::nullopt, nullptr, nullptr);
        QCOMPARE(model.blocks.size(), std::size_t{1});
        QVERIFY(!model.blocks.front().layer);
    }
    void unknownSharesGiveEqualBlocksAndNoNumbers() {
        const auto asked = story::ask();
        const StripModel model =
            stripModel(asked.document, asked.bench, firstQuestion(asked.document, asked.study), nullptr);
        QCOMPARE(model.blocks.size(), std::size_t{7});
        QVERIFY(!model.sharesKnown());
        const StripLayout layout = layoutStrip(model, {0, 0, 700, 50});
        for (const QRectF& rect : layout.rects) QVERIFY_NEAR(rect.width(), 100, 1e-9);
        QVERIFY(layout.boundaries.empty());
        QCOMPARE(std::count_if(model.blocks.begin(), model.blocks.end(),
                               [](const StripBlock& b) { return b.underStudy; }),
                 1);
    }
    void aMeasuredMountShowsWhereItsDifferenceLies() {
        const auto asked = story::measured();
        const Mount* mount = mountsOf(asked.document, asked.bench).front();
        const StripModel model =
            stripModel(asked.document, asked.bench, firstQuestion(asked.document, asked.study), mount);
        QVERIFY(model.chipC && model.ambientC && *model.chipC > *model.ambientC + 20);
        QVERIFY(model.sharesKnown());
        QVERIFY_NEAR(model.totalK(), *model.chipC - *model.ambientC, 0.05); // both ends are those of its log
        const StripLayout layout = layoutStrip(model, {0, 0, 700, 50});
        QCOMPARE(layout.boundaries.size(), std::size_t{7}); // two measured ends, five faces between
        QCOMPARE(std::count_if(layout.boundaries.begin(), layout.boundaries.end(),
                               [](const StripBoundary& b) { return b.isMeasured; }),
                 2);
        for (std::size_t i = 2; i + 1 < model.blocks.size(); ++i)
            QVERIFY(*model.blocks[i].hotC < *model.blocks[i - 1].hotC);
        QVERIFY(model.blocks[3].underStudy && model.blocks[3].figures.contains("mm²"));
    }
    void withoutAMountTheMeanOfAllIsShown() {
        const auto asked = story::measured();
        const Question* question = firstQuestion(asked.document, asked.study);
        const StripModel model = stripModel(asked.document, asked.bench, question, nullptr);
        QVERIFY(model.sharesKnown() && model.caption.contains("mean of 9 mounts"));
    }
    void twoPathsStandOnOneScale() {
        StripModel upper, lower;
        for (const double k : {10.0, 30.0}) {
            StripBlock block;
            block.deltaK = k;
            upper.blocks.push_back(block);
            block.deltaK = k / 2;
            lower.blocks.push_back(block);
        }
        const StripPair pair = layoutPair(upper, lower, {0, 0, 400, 44});
        QVERIFY_NEAR(pair.upper.rects[1].width(), 300, 1e-9);
        QVERIFY_NEAR(pair.lower.rects[1].width(), 150, 1e-9);
        QVERIFY(pair.lower.rects[0].top() > pair.upper.rects[0].bottom());
        QCOMPARE(pair.differenceK, 20.0);
        QVERIFY_NEAR(pair.difference.left(), 200, 1e-9);
        QVERIFY_NEAR(pair.difference.width(), 200, 1e-9);
        QCOMPARE(pair.difference.top(), pair.upper.rects[0].top());
    }
    void aBranchHasWhatIsLeftBetweenItsSourceAndThePlate() {
        StripModel model;
        for (std::int64_t layer : {0, 0, 7, 8, 9}) { // memory, its joint, plate, cooler, room
            StripBlock block;
            if (layer > 0) block.layer = Id<Layer>{layer};
            model.blocks.push_back(block);
        }
        SeenPath path;
        path.chipC = 70;
        path.ambientC = 22;
        SeenLayer plate{Id<Layer>{7}}, cooler{Id<Layer>{8}};
        plate.deltaK = 2;
        plate.hotC = 46;
        cooler.deltaK = 22;
        path.layers = {plate, cooler};
        addBranchFigures(model, path);
        QVERIFY(!model.sharesKnown()); // nobody measured the memory
        model.chipC = 82;
        model.ambientC = 22;
        addBranchFigures(model, path);
        QVERIFY(model.sharesKnown());
        QCOMPARE(*model.blocks[1].deltaK, 36.0);
        QVERIFY_NEAR(*model.blocks[1].share, 0.6, 1e-12);
        QVERIFY_NEAR(model.totalK(), 60, 1e-12); // from memory to room
        QCOMPARE(*model.blocks[0].deltaK, 0.0);
    }
    void aGraphicsCardShowsOnePathAndTheOthersAsLines() {
        Document document;
        Edit edit(document, "Describe");
        const Id<Bench> bench = addBench(edit, BenchTemplate::graphicsCard, "render-1");
        document = edit.document();
        const StripModel main = stripModel(document, bench, nullptr, nullptr);
        QCOMPARE(main.blocks.size(), std::size_t{5});
        QCOMPARE(main.others.size(), std::size_t{2});
        QCOMPARE(main.blocks[main.others[0].joins].kind, LayerKind::plate);

        const StripModel memory = stripModel(document, bench, nullptr, nullptr, main.others[0].site);
        QCOMPARE(memory.source, QString("memory"));
        QCOMPARE(memory.blocks.size(), std::size_t{5}); // memory, interface, plate, cooler, room
        QCOMPARE(memory.blocks[1].kind, LayerKind::interface);
        QCOMPARE(memory.blocks[1].site, std::optional(main.others[0].site));
        QCOMPARE(memory.others.size(), std::size_t{2}); // the chip, the power stages
        const StripModel back = stripModel(document, bench, nullptr, nullptr, memory.others[0].site);
        QCOMPARE(back.blocks.size(), main.blocks.size());

        const StripLayout layout = layoutStrip(main, {0, 0, 500, 80}, 15);
        QVERIFY_NEAR(layout.rects[0].bottom(), 50, 1e-9);
        QVERIFY_NEAR(layout.lines[1].right(), 250, 1e-9); // the middle of the plate
        QCOMPARE(layout.itemAt(20, 60), 5);
        QCOMPARE(layout.itemAt(20, 75), 6);
        QCOMPARE(layout.itemAt(400, 75), -1);
    }
    void knownSharesSetTheWidths() {
        StripModel model;
        for (double share : {0.1, 0.6, 0.3}) {
            StripBlock block;
            block.share = share;
            model.blocks.push_back(block);
        }
        const StripLayout layout = layoutStrip(model, {10, 0, 520, 50}, 0, 40);
        QVERIFY_NEAR(layout.rects[1].width(), 40 + 0.6 * 400, 1e-9);
        QVERIFY_NEAR(layout.rects[2].right(), 530, 1e-9);
        QCOMPARE(layout.itemAt(15, 25), 0);
        QCOMPARE(layout.itemAt(600, 25), -1);
    }
    void tilesStandInOrderWithDaysAsNotches() {
        const auto asked = story::measured();
        const auto tiles = tapeTiles(asked.document, asked.bench, asked.study);
        QCOMPARE(tiles.size(), std::size_t{9});
        const TapeLayout layout = layoutTape(tiles, 100, 90, 20);
        QCOMPARE(layout.notches.size(), std::size_t{3}); // three days
        for (std::size_t i = 1; i < layout.rects.size(); ++i)
            QVERIFY(layout.rects[i].left() > layout.rects[i - 1].right());
        QCOMPARE(layout.tileAt(layout.rects[4].center().x(), 50), 4);
        QCOMPARE(layout.tileAt(-5, 50), -1);
    }
    void theFirstPlannedTileIsWhatToDoNext() {
        auto asked = story::measured();
        Edit edit(asked.document, "plan");
        for (int i = 0; i < 2; ++i) {
            Slot slot;
            slot.study = asked.study;
            slot.position = 50 + i;
            slot.level = levelsOf(asked.document, firstQuestion(asked.document, asked.study)->id)[0]->id;
            edit.add(slot);
        }
        apply(asked.document, edit.finish());
        const auto tiles = tapeTiles(asked.document, asked.bench, asked.study);
        QCOMPARE(tiles[9].state, TileState::next);
        QCOMPARE(tiles[10].state, TileState::planned);
    }
    void skippedTilesStayAndLaterRunsAreDated() {
        auto asked = story::ask();
        const Question question = *firstQuestion(asked.document, asked.study);
        const Instant start = *parseInstant("2031-03-03");
        Edit edit(asked.document, "plan");
        Plan plan = planFor(asked.document, asked.study);
        plan.start = start;
        plan.mountsPerLevel = 1;
        plan.followUps = parseDelays("24 h");
        layPlan(edit, question, plan, start);
        layFollowUps(edit, planFor(edit.document(), asked.study));
        skipSlot(edit, plannedSlots(edit.document(), asked.study).front()->id, "tube is empty");
        apply(asked.document, edit.finish());
        const auto tiles = tapeTiles(asked.document, asked.bench, asked.study, start);
        QCOMPARE(tiles.size(), std::size_t{5}); // nothing to come back to after the skipped one
        QCOMPARE(tiles[0].state, TileState::skipped);
        QVERIFY(tiles[0].detail.contains("tube is empty"));
        QCOMPARE(tiles[1].state, TileState::next);
        QVERIFY(tiles[3].followUp && tiles[3].value == "after 24 h");
        QVERIFY(tiles[3].day != tiles[1].day);
    }
    void rejectedTilesStayAndOtherStudiesAreDimmed() {
        auto asked = story::measured();
        Mount mount = *mountsOf(asked.document, asked.bench).front();
        mount.rejected = true;
        asked.document.put(mount);
        QCOMPARE(tapeTiles(asked.document, asked.bench, asked.study).front().state, TileState::rejected);
        Edit edit(asked.document, "other");
        const Id<Study> other = addStudy(edit, {StudyTemplate::own, asked.bench, "other", {}}, {});
        apply(asked.document, edit.finish());
        for (const TapeTile& tile : tapeTiles(asked.document, asked.bench, other)) QVERIFY(tile.otherStudy);
    }
    void textIsReadableInBothShades() { // WCAG 2.1: at least 4.5 : 1
        QVERIFY_NEAR(contrast(Qt::black, Qt::white), 21, 1e-9);
        for (Shade shade : {Shade::light, Shade::dark}) {
            const Colours c = coloursOf(shade);
            for (const QColor& ground : {c.ground, c.sheet, c.band}) {
                QVERIFY(contrast(c.ink, ground) >= 4.5);
                QVERIFY2(contrast(c.quiet, ground) >= 4.5,
                         qPrintable(QString::number(contrast(c.quiet, ground))));
            }
            QVERIFY(contrast(c.hot, c.sheet) >= 4.5);
            QVERIFY(contrast(c.cold, c.sheet) >= 4.5);
            for (const QColor& block : {c.hotWash, c.coldWash, c.body})
                QVERIFY(contrast(c.ink, block) >= 4.5);
        }
    }
};

IBUKI_TEST(TestStripLayout)
#include "tst_strip_layout.moc"
