// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shelf/cut_puzzle.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;
using namespace ibuki::cutting;

class TestCutPuzzle : public QObject {
    Q_OBJECT

    static BlockPtr piece(double width, double length, bool mayTurn = true) {
        return single(0, width, length, mayTurn);
    }
    static double areaOf(const BlockPtr& block) {
        return block->first ? areaOf(block->first) + areaOf(block->second) : block->width * block->length;
    }
    /// Solved by the luckiest of a few dice.
    static std::vector<BlockPtr> solved(const std::vector<BlockPtr>& pieces, const CutRect& room,
                                        double kerf = 0) {
        Dice dice;
        std::vector<BlockPtr> best = pieces;
        for (int i = 0; i < 50; ++i) {
            auto made = Puzzle(pieces, room, kerf).solve(dice);
            if (made.size() < best.size()) best = std::move(made);
        }
        return best;
    }

private slots:
    void twoHalvesBecomeTheWhole() {
        const auto made = solved({piece(40, 100), piece(100, 60)}, {0, 0, 100, 100}); // one lies across
        QCOMPARE(made.size(), std::size_t{1});
        QVERIFY_NEAR(made.front()->width * made.front()->length, 1e4, 1e-9);
        QVERIFY_NEAR(areaOf(made.front()), 1e4, 1e-9); // nothing was wasted
    }
    void theKerfIsCountedIn() {
        const CutRect room{0, 0, 100.5, 100};
        QCOMPARE(solved({piece(40, 100), piece(60, 100)}, room, 0.5).size(), std::size_t{1});
        QCOMPARE(solved({piece(40, 100), piece(60, 100)}, {0, 0, 100, 100}, 0.5).size(), std::size_t{2});
    }
    void whatMayNotTurnDoesNot() {
        // Beside each other they would be 20 × 10; only below each other do they share a side untouched.
        const auto made = solved({piece(10, 30, false), piece(10, 20, false)}, {0, 0, 10, 50});
        QCOMPARE(made.size(), std::size_t{1});
        QVERIFY(!made.front()->downwards);
        QCOMPARE(made.front()->length, 50.0);
        QCOMPARE(solved({piece(10, 30, false), piece(30, 10, false)}, {0, 0, 60, 60}).size(), std::size_t{2});
    }
    void blocksStayInsideTheSheet() {
        const auto made = solved({piece(60, 50), piece(60, 50), piece(60, 50)}, {0, 0, 100, 100});
        for (const BlockPtr& block : made) QVERIFY(std::max(block->width, block->length) <= 100);
        QCOMPARE(made.size(), std::size_t{2});
    }
    void theSamePlanEveryTime() {
        CutJob job;
        for (int i = 0; i < 12; ++i)
            job.pieces.push_back({"piece", 7.0 + 3 * (i % 4), 9.0 + 5 * (i % 3), 1, 1 + i % 2, i % 5 != 0});
        job.sheets = {{"sheet", 60, 70, 1, {}, false}};
        job.kerfMm = 0.4;
        const CutPlan first = planCuts(job);
        const CutPlan second = planCuts(job);
        QCOMPARE(first.layouts.size(), second.layouts.size());
        for (std::size_t i = 0; i < first.layouts.size(); ++i) {
            QCOMPARE(first.layouts[i].placements.size(), second.layouts[i].placements.size());
            for (std::size_t k = 0; k < first.layouts[i].placements.size(); ++k) {
                QCOMPARE(first.layouts[i].placements[k].at.x, second.layouts[i].placements[k].at.x);
                QCOMPARE(first.layouts[i].placements[k].at.y, second.layouts[i].placements[k].at.y);
                QCOMPARE(first.layouts[i].placements[k].piece, second.layouts[i].placements[k].piece);
            }
        }
    }
};

IBUKI_TEST(TestCutPuzzle)
#include "tst_cut_puzzle.moc"
