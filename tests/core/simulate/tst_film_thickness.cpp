// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/look/picture.h"
#include "core/simulate/film_thickness.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// A dot of that volume on a face of 40 × 30 mm, laid even and smooth.
FilmScene dot(double volumeMm3, std::uint64_t seed = 1) {
    FilmScene scene;
    scene.spread.widthMm = 40;
    scene.spread.lengthMm = 30;
    scene.spread.strokes = {{{0, 0}, {0, 0}}};
    scene.spread.volumeMm3 = volumeMm3;
    scene.spread.bondLineMm = 0.05;
    scene.ragged = 0;
    scene.seed = seed;
    return scene;
}

double coveredShare(const FilmThickness& film) {
    const GreyPicture mask = maskOf(film);
    return static_cast<double>(std::count(mask.grey.begin(), mask.grey.end(), maskCovered))
           / static_cast<double>(mask.grey.size());
}

/// The covered pixels' middle, mm from the face's upper left.
PlanePoint middleOf(const FilmThickness& film) {
    const GreyPicture mask = maskOf(film);
    PlanePoint sum;
    double count = 0;
    for (int row = 0; row < mask.height; ++row)
        for (int column = 0; column < mask.width; ++column) {
            if (mask.grey[static_cast<std::size_t>(row) * static_cast<std::size_t>(mask.width)
                          + static_cast<std::size_t>(column)]
                != maskCovered)
                continue;
            sum.x += (column + 0.5) * film.cellMm;
            sum.y += (row + 0.5) * film.cellMm;
            ++count;
        }
    return {sum.x / count, sum.y / count};
}

} // namespace

class TestFilmThickness : public QObject {
    Q_OBJECT
private slots:
    void aSmoothDotCoversWhatItsVolumeFills() { // volume over bond line, while it stays on the face
        for (double volume : {6.0, 12.0, 20.0}) {
            const double share = volume / 0.05 / (40 * 30);
            QVERIFY2(std::abs(coveredShare(filmThickness(dot(volume))) - share) < 0.02,
                     qPrintable(QString("%1 mm³").arg(volume)));
        }
    }
    void moreVolumeNeverCoversLess() {
        double before = 0;
        for (double volume = 2; volume < 130; volume *= 1.3) {
            const double now = coveredShare(filmThickness(dot(volume)));
            QVERIFY(now >= before - 0.005);
            before = now;
        }
        QVERIFY(before > 0.98);
    }
    void theSameSeedIsTheSameFilmAndAnotherIsNot() {
        FilmScene scene = dot(15);
        scene.ragged = 0.1;
        scene.smear = 0.4;
        scene.bubbles = 6;
        QVERIFY(filmThickness(scene).bondLines == filmThickness(scene).bondLines);
        FilmScene other = scene;
        other.seed = 2;
        QVERIFY(filmThickness(scene).bondLines != filmThickness(other).bondLines);
    }
    void aShiftMovesIt() { // rows run down, the shift's y up
        FilmScene scene = dot(8);
        const PlanePoint middle = middleOf(filmThickness(scene));
        QVERIFY_NEAR(middle.x, 20, 0.2);
        QVERIFY_NEAR(middle.y, 15, 0.2);
        scene.shift = {6, 4};
        const PlanePoint moved = middleOf(filmThickness(scene));
        QVERIFY_NEAR(moved.x, 26, 0.2);
        QVERIFY_NEAR(moved.y, 11, 0.2);
    }
    void aTiltThinsOneCorner() {
        FilmScene scene = dot(40);
        scene.tilt = 0.6;
        scene.tiltAngle = 0; // towards the right
        const PlanePoint middle = middleOf(filmThickness(scene));
        QVERIFY(middle.x < 19);
        scene.tiltAngle = std::numbers::pi;
        QVERIFY(middleOf(filmThickness(scene)).x > 21);
    }
    void bubblesTakeAwayAndSmearsAddNoCover() {
        FilmScene scene = dot(30);
        const double plain = coveredShare(filmThickness(scene));
        scene.bubbles = 12;
        QVERIFY(coveredShare(filmThickness(scene)) < plain);
        scene.bubbles = 0;
        scene.smear = 0.8; // a smear is thinner than half the bond line
        QVERIFY_NEAR(coveredShare(filmThickness(scene)), plain, 0.02);
    }
    void aFilmLaidBeforeCoversTheFace() {
        FilmScene scene = dot(0);
        scene.spread.strokes.clear();
        QVERIFY(coveredShare(filmThickness(scene)) > 0.93);
    }
    void anySceneHasAFilmWithinItsBounds() {
        for (std::uint64_t seed = 1; seed <= 60; ++seed) {
            FilmScene scene = dot(static_cast<double>(seed), seed);
            scene.ragged = 0.01 * static_cast<double>(seed % 20);
            scene.smear = 0.1 * static_cast<double>(seed % 11);
            scene.bubbles = static_cast<int>(seed % 7);
            scene.tilt = 0.1 * static_cast<double>(seed % 9);
            scene.tiltAngle = static_cast<double>(seed);
            scene.cellMm = 0.3;
            const FilmThickness film = filmThickness(scene);
            QCOMPARE(film.bondLines.size(),
                     static_cast<std::size_t>(film.wide()) * static_cast<std::size_t>(film.high()));
            for (float thick : film.bondLines) QVERIFY(thick >= 0 && thick <= 1.3F);
        }
    }
};

IBUKI_TEST(TestFilmThickness)
#include "tst_film_thickness.moc"
