// SPDX-License-Identifier: GPL-3.0-or-later
// Figures of masks that are made so that each figure is known beforehand.

#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/look/bare_circle.h"
#include "core/look/coverage_figures.h"
#include "support/near.h"
#include "support/test_class.h"

#include <QtTest>
#include <cmath>

using namespace ibuki;

class TestCoverageFigures : public QObject {
    Q_OBJECT

    template <class IsBare> static GreyPicture mask(int width, int height, IsBare isBare) {
        GreyPicture made{width, height, {}};
        for (int row = 0; row < height; ++row)
            for (int column = 0; column < width; ++column)
                made.grey.push_back(isBare(column, row) ? maskBare : maskCovered);
        return made;
    }

private slots:
    void aWholeFaceHasNothingBare() {
        const CoverageFigures f = coverageFigures(mask(40, 30, [](int, int) { return false; }), {20, 15});
        QCOMPARE(f.covered, 1.0);
        QCOMPARE(f.centre, 1.0);
        QCOMPARE(f.edge, 1.0);
        QVERIFY(f.voids.empty());
        QCOMPARE(f.largestBareCircleMm, 0.0);
        QCOMPARE(f.trappedVoids, 0);
    }
    void aBareFaceHoldsTheCircleOfItsShorterSide() {
        const CoverageFigures f = coverageFigures(mask(40, 30, [](int, int) { return true; }), {20, 15});
        QCOMPARE(f.covered, 0.0);
        QVERIFY_NEAR(f.largestBareCircleMm, 15, 1e-4);
        QCOMPARE(f.voids.size(), std::size_t{1});
        QVERIFY(f.voids[0].touchesEdge);
        QVERIFY_NEAR(f.voids[0].areaMm2, 300, 1e-9);
    }
    void aSquareVoidHasItsPlaceAndItsCircle() { // 8 × 8 px of 0.5 mm, from column 4 and row 6
        const GreyPicture m = mask(40, 30, [](int x, int y) { return x >= 4 && x < 12 && y >= 6 && y < 14; });
        const CoverageFigures f = coverageFigures(m, {20, 15});
        QVERIFY_NEAR(f.covered, 1 - 64.0 / 1200, 1e-9);
        QCOMPARE(f.trappedVoids, 1);
        QVERIFY_NEAR(f.voids[0].areaMm2, 16, 1e-9);
        QVERIFY_NEAR(f.voids[0].xMm, 4 - 10, 1e-9);
        QVERIFY_NEAR(f.voids[0].yMm, 7.5 - 5, 1e-9);
        QVERIFY(!f.voids[0].touchesEdge);
        QVERIFY_NEAR(f.largestBareCircleMm, 4, 0.01);
    }
    void
    pixelsNeedNotBeSquare() { // a bare strip along the left edge: 10 of 40 columns of 1 mm, rows of 0.25 mm
        const GreyPicture m = mask(40, 40, [](int x, int) { return x < 10; });
        const CoverageFigures f = coverageFigures(m, {40, 10});
        QVERIFY_NEAR(f.covered, 0.75, 1e-9);
        QVERIFY_NEAR(f.largestBareCircleMm, 10, 0.01);
        QVERIFY_NEAR(f.voids[0].xMm, -15, 1e-9);
        QVERIFY_NEAR(f.voids[0].yMm, 0, 1e-9);
        QVERIFY_NEAR(f.corners[0], 0, 1e-6);
        QVERIFY_NEAR(f.corners[1], 1, 1e-6);
        QVERIFY_NEAR(f.corners[3], 0, 1e-6);
    }
    void centreIsTheConcentricRectangleOfHalfTheArea() {
        // All of the middle rectangle is covered, nothing else; its sides are 1/√2 of the face's.
        const int n = 1024; // 149.96 pixels from each side: nearly whole ones
        const double from = n * (0.5 - 0.5 / std::sqrt(2)), to = n - from;
        const GreyPicture m = mask(n, n, [&](int x, int y) {
            return x + 0.5 < from || x + 0.5 > to || y + 0.5 < from || y + 0.5 > to;
        });
        const CoverageFigures f = coverageFigures(m, {30, 30});
        QVERIFY_NEAR(f.centre, 1, 0.001);
        QVERIFY_NEAR(f.edge, 0, 0.001);
        QVERIFY_NEAR(f.covered, 0.5 * (f.centre + f.edge), 1e-9);
    }
    void cornersRunClockwiseFromTheUpperLeft() {
        const GreyPicture m = mask(80, 40, [](int x, int y) { return x >= 60 && y >= 30; }); // lower right
        const CoverageFigures f = coverageFigures(m, {40, 20});
        QVERIFY_NEAR(f.corners[0], 1, 1e-6);
        QVERIFY_NEAR(f.corners[1], 1, 1e-6);
        QVERIFY_NEAR(f.corners[2], 0, 1e-6);
        QVERIFY_NEAR(f.corners[3], 1, 1e-6);
        QVERIFY(f.voids[0].xMm > 0 && f.voids[0].yMm < 0);
    }
    void diagonalNeighboursAreTwoRegionsAndSmallOnesAreLeftOut() {
        const GreyPicture m = mask(40, 40, [](int x, int y) {
            const bool one = x >= 10 && x < 14 && y >= 10 && y < 14,
                       two = x >= 14 && x < 18 && y >= 14 && y < 18;
            return one || two || (x == 30 && y == 30); // the last has 0.0625 mm²
        });
        const CoverageFigures f = coverageFigures(m, {10, 10});
        QCOMPARE(f.voids.size(), std::size_t{2});
        QCOMPARE(f.trappedVoids, 2);
        QVERIFY_NEAR(f.covered, 1 - 33.0 / 1600, 1e-9);
    }
    void greyIsCoveredFromOneHundredAndTwentyEight() {
        GreyPicture m = mask(2, 1, [](int, int) { return false; });
        m.grey = {127, 128};
        QCOMPARE(coverageFigures(m, {1, 1}).covered, 0.5);
    }
    void discsHaveTheirOwnCircle() { // a property: a bare disc holds a circle of its size, to a pixel
        Random random(11);
        for (int trial = 0; trial < 40; ++trial) {
            const int w = 60 + static_cast<int>(random.uniform() * 200),
                      h = 60 + static_cast<int>(random.uniform() * 200);
            const Extent face{8 + 30 * random.uniform(), 8 + 30 * random.uniform()};
            const double px = face.widthMm / w, py = face.lengthMm / h;
            const double r = (0.1 + 0.3 * random.uniform()) * std::min(face.widthMm, face.lengthMm);
            const double cx = r + random.uniform() * (face.widthMm - 2 * r),
                         cy = r + random.uniform() * (face.lengthMm - 2 * r);
            const GreyPicture m = mask(
                w, h, [&](int x, int y) { return std::hypot((x + 0.5) * px - cx, (y + 0.5) * py - cy) < r; });
            QVERIFY_NEAR(largestBareCircleMm(m, face), 2 * r, 1.5 * std::max(px, py));
        }
    }
    void whatHasNoSizeIsRefused() {
        const GreyPicture m = mask(2, 2, [](int, int) { return true; });
        QVERIFY_THROWS_EXCEPTION(InputError, coverageFigures(m, {0, 3}));
        QVERIFY_THROWS_EXCEPTION(InputError, coverageFigures(m, {3, std::nan("")}));
        QVERIFY_THROWS_EXCEPTION(InputError, coverageFigures({}, {3, 3}));
    }
};

IBUKI_TEST(TestCoverageFigures)
#include "tst_coverage_figures.moc"
