// SPDX-License-Identifier: GPL-3.0-or-later
// Reference values: docs/methods.md, "Spread", 30 × 30 mm at a bond line of 40 µm unless said otherwise.
#include "core/base/input_error.h"
#include "core/physics/spread.h"
#include "support/near.h"
#include "support/test_class.h"

#include <numbers>

using namespace ibuki;

class TestSpread : public QObject {
    Q_OBJECT

    static SpreadInput face(Pattern pattern, double reach, double ratio, double width = 30,
                            double length = 30) {
        return {width, length, patternStrokes(pattern, width, length, reach), ratio * width * length * 0.04,
                0.04,  0.1};
    }

private slots:
    void patternsCoverAsTabulated_data() {
        QTest::addColumn<int>("pattern");
        QTest::addColumn<double>("reach");
        QTest::addColumn<double>("ratio");
        QTest::addColumn<double>("percent");
        const auto row = [](const char* name, Pattern pattern, double reach, double once, double half) {
            QTest::addRow("%s, once", name) << static_cast<int>(pattern) << reach << 1.0 << once;
            QTest::addRow("%s, 1.5 times", name) << static_cast<int>(pattern) << reach << 1.5 << half;
        };
        row("dot", Pattern::dot, 0, 90.9, 99.9);
        row("20 mm line", Pattern::line, 10, 77.3, 99.8);
        row("diagonal cross 28.3 mm", Pattern::cross, 14.142, 88.3, 99.6);
        row("diagonal cross 20 mm", Pattern::cross, 10, 94.8, 100.0);
        row("five dots", Pattern::fiveDots, 8, 93.1, 100.0);
    }
    void patternsCoverAsTabulated() {
        QFETCH(int, pattern);
        QFETCH(double, reach);
        QFETCH(double, ratio);
        QFETCH(double, percent);
        QVERIFY_NEAR(100 * spread(face(static_cast<Pattern>(pattern), reach, ratio)).coverage, percent, 0.3);
    }
    void aDotOnASmallDie() {
        QVERIFY_NEAR(100 * spread(face(Pattern::dot, 0, 1.0, 10, 20)).coverage, 74.2, 0.3);
        QVERIFY_NEAR(100 * spread(face(Pattern::dot, 0, 1.5, 10, 20)).coverage, 93.3, 0.3);
        QVERIFY_NEAR(100 * spread(face(Pattern::dot, 0, 2.0, 10, 20)).coverage, 100, 1e-9);
    }
    void volumeIsConserved() {
        for (Pattern pattern : {Pattern::dot, Pattern::line, Pattern::cross, Pattern::fiveDots})
            for (double ratio : {0.3, 0.9, 1.7}) {
                const SpreadInput input = face(pattern, typicalReachMm(pattern, 30, 30), ratio);
                const Spread result = spread(input);
                const double inside = result.coverage * 900;
                const double area = input.volumeMm3 / 0.04;
                const double cell = result.cellWidthMm * result.cellLengthMm;
                // Independent of what the result says of itself: the wet cells, and one cell of rounding.
                double wet = 0;
                for (unsigned char one : result.wet) wet += one * cell;
                QVERIFY_NEAR(wet, inside, 1e-9 * area);
                QVERIFY_NEAR(wet + result.outside * area, area, cell);
                if (ratio < 0.5) QVERIFY_NEAR(wet, area, cell); // nothing reaches the edge
            }
    }
    void aDotReachesAsFarAsItsCircle() {
        const Spread result = spread(face(Pattern::dot, 0, 0.5));
        QVERIFY_NEAR(result.offsetMm, std::sqrt(450 / std::numbers::pi), 0.1); // one cell
        QCOMPARE(result.trappedPockets, 0);
    }
    void theFillingVolumeJustReachesTheCorners() {
        QVERIFY_NEAR(fillingVolumeMm3(face(Pattern::dot, 0, 1)) / 36, std::numbers::pi / 2, 0.01);
        QVERIFY_NEAR(fillingVolumeMm3(face(Pattern::dot, 0, 1, 20, 10)) / 8, 1.963, 0.015);
        SpreadInput input = face(Pattern::line, 10, 1);
        input.volumeMm3 = fillingVolumeMm3(input);
        QVERIFY_NEAR(spread(input).coverage, 1, 1e-12);
        input.volumeMm3 *= 0.97;
        QVERIFY(spread(input).coverage < 1);
    }
    void dotsThatMeetEncloseAir() {
        SpreadInput ring{40, 40, {}, 0, 0.04, 0.1}; // four dots on the axes close before the middle fills
        for (const PlanePoint p : {PlanePoint{10, 0}, {-10, 0}, {0, 10}, {0, -10}})
            ring.strokes.push_back({p, p});
        ring.volumeMm3 = 4 * std::numbers::pi * 7.6 * 7.6 * 0.04;
        const Spread result = spread(ring);
        QCOMPARE(result.trappedPockets, 1);
        QVERIFY(result.trappedMm2 > 1);
    }
    void aFilmCoversByDesign() {
        QVERIFY_NEAR(spread(face(Pattern::film, 0, 1.0)).coverage, 1, 1e-12);
        QVERIFY_NEAR(spread(face(Pattern::film, 0, 0.6)).coverage, 0.6, 1e-12);
    }
    void whatCannotBeIsRefused() {
        SpreadInput none = face(Pattern::dot, 0, 1);
        none.widthMm = 0;
        QVERIFY_THROWS_EXCEPTION(InputError, spread(none));
        none = face(Pattern::dot, 0, 1);
        none.volumeMm3 = -1;
        QVERIFY_THROWS_EXCEPTION(InputError, spread(none));
    }

    void itsMaskBeginsAtTheTopEdge() {
        SpreadInput input;
        input.widthMm = 20;
        input.lengthMm = 10;
        input.bondLineMm = 0.1;
        input.volumeMm3 = 4;
        input.strokes = {{{-10, 3}, {10, 3}}}; // along the upper edge
        const Spread found = spread(input);
        const CoverageMask mask = maskOf(found);
        QVERIFY_NEAR(mask.mean(), found.coverage, 1e-6);
        QVERIFY_NEAR(mask.mean(0.2, 0.8, 0.73, 0.86), 1, 0.02); // about 2 mm, 3 mm above the middle
        QVERIFY_NEAR(mask.mean(0, 1, 0, 0.6), 0, 0.02);
    }
};

IBUKI_TEST(TestSpread)
#include "tst_spread.moc"
