// SPDX-License-Identifier: GPL-3.0-or-later
// From photograph to mask, held to scenes whose truth is known.

#include "core/base/input_error.h"
#include "core/look/coverage_figures.h"
#include "core/look/measured_face.h"
#include "support/near.h"
#include "support/photograph_scenes.h"
#include "support/test_class.h"

#include <QtTest>
#include <algorithm>
#include <cmath>

using namespace ibuki;

class TestMeasuredFace : public QObject {
    Q_OBJECT

    static double cornerError(const FaceCorners& found, const Photograph& photograph) {
        const FaceCorners& truth = photograph.corners;
        double most = 0;
        for (std::size_t i = 0; i < 4; ++i)
            most = std::max(most, std::hypot(found[i].x - truth[i].x, found[i].y - truth[i].y));
        return most / std::hypot(truth[2].x - truth[0].x, truth[2].y - truth[0].y);
    }
    static bool has(const MeasuredFace& face, LookFlag flag) {
        return std::find(face.flags.begin(), face.flags.end(), flag) != face.flags.end();
    }
    static PhotographScene plainScene() {
        PhotographScene scene;
        FilmScene film;
        film.spread = {30, 24, patternStrokes(Pattern::dot, 30, 24, 0), 30 * 24 * 0.04 * 0.9, 0.04, 0.25};
        scene.film = filmThickness(film);
        scene.colour = FilmColour::blue;
        return scene;
    }

private slots:
    /// Of photographs whose corners are given at least 95 % within 0.03 (good) and 0.06 (hard) of the truth,
    /// none of the rest without a flag; where corners are looked for, 95 % within 1.5 % of the diagonal or
    /// told as not found.
    void masksAndCornersAreHeldToTheTruth() {
#ifdef IBUKI_SANITIZED
        const int count = 12;
#else
        const int count = qEnvironmentVariableIsSet("IBUKI_LONG") ? 60 : 20; // good and hard, each so many
#endif
        int within = 0, silent = 0, placed = 0;
        for (int number = 300; number < 300 + count; ++number)
            for (const bool hard : {false, true}) {
                const PhotographScene scene = story::anyScene(number, hard);
                const Photograph photograph = photographOf(scene);
                const double truth = coverageMaskOf(maskOf(scene.film)).mean();
                MeasureFaceOptions options;
                options.film.surface = scene.surface;
                options.corners = photograph.corners;
                const MeasuredFace measured = measureFace(photograph.picture, scene.film.face, options);
                const bool isWithin = std::abs(measured.covered.covered - truth) <= (hard ? 0.06 : 0.03);
                within += isWithin ? 1 : 0;
                silent += !isWithin && measured.flags.empty() ? 1 : 0;
                const auto found = findCorners(photograph.picture, scene.film.face);
                placed += !found || cornerError(found->corners, photograph) <= 0.015 ? 1 : 0;
            }
        qInfo("within %d, silent %d, corners placed %d of %d", within, silent, placed, 2 * count);
        QVERIFY(within >= 0.95 * 2 * count);
        QCOMPARE(silent, 0);
        QVERIFY(placed >= 0.95 * 2 * count);
    }
    void lightAloneMakesNoFilm() { // a property: the same film under any light is the same mask to within two
                                   // hundredths
        PhotographScene scene = plainScene();
        const double truth = coverageMaskOf(maskOf(scene.film)).mean();
        for (const double slope : {0.0, 0.2, 0.35})
            for (const double angle : {0.0, 90.0, 200.0}) {
                scene.lightSlope = slope;
                scene.lightAngleDeg = angle;
                const Photograph photograph = photographOf(scene);
                MeasureFaceOptions options;
                options.corners = photograph.corners;
                QVERIFY_NEAR(measureFace(photograph.picture, scene.film.face, options).covered.covered, truth,
                             0.02);
            }
    }
    void theLastPictureIsAFirstGuess() {
        const PhotographScene scene = plainScene();
        const Photograph photograph = photographOf(scene);
        FindCornersOptions options;
        options.guess = photograph.corners;
        for (PlanePoint& corner : *options.guess)
            corner = {(corner.x + 6) / scene.width, (corner.y - 5) / scene.height};
        const auto found = findCorners(photograph.picture, scene.film.face, options);
        QVERIFY(found.has_value());
        QVERIFY(cornerError(found->corners, photograph) < 0.01);
    }
    void anAssumedSizeHidesNoFace() { // 30 × 24 mm taken for 30 × 30
        const PhotographScene scene = plainScene();
        const Photograph photograph = photographOf(scene);
        FindCornersOptions options;
        options.sizeAssumed = true;
        const auto found = findCorners(photograph.picture, {30, 30}, options);
        QVERIFY(found.has_value());
        QVERIFY(cornerError(found->corners, photograph) < 0.015);
    }
    void anEmptyBenchHasNoFace() {
        RgbPicture plain{400, 300, {}};
        plain.rgb.assign(400 * 300 * 3, 90);
        const MeasuredFace measured = measureFace(plain, {30, 30});
        QVERIFY(!measured.corners);
        QVERIFY(has(measured, LookFlag::cornersNotFound));
    }
    void whatIsUnsureIsFlagged() {
        PhotographScene scene = plainScene();
        const auto measured = [&](const PhotographScene& one) {
            const Photograph photograph = photographOf(one);
            MeasureFaceOptions options;
            options.corners = photograph.corners;
            return measureFace(photograph.picture, one.film.face, options);
        };
        QVERIFY(measured(scene).flags.empty());
        PhotographScene glaring = scene;
        glaring.glare = 0.1;
        QVERIFY(has(measured(glaring), LookFlag::glare));
        PhotographScene blurred = scene;
        blurred.blurPx = 14;
        QVERIFY(has(measured(blurred), LookFlag::blurred));
        PhotographScene near = scene;
        near.fill = 1.5;
        QVERIFY(has(measured(near), LookFlag::outOfFrame));
        PhotographScene alike = scene; // all covered: nothing to tell apart
        std::fill(alike.film.bondLines.begin(), alike.film.bondLines.end(), 1.0F);
        const MeasuredFace whole = measured(alike);
        QVERIFY(has(whole, LookFlag::lowContrast));
        QVERIFY(whole.covered.covered > 0.97);
    }
    void earlierLooksTellWhichKindIsFilm() { // a film that covers a tenth would pass for the bare part
        PhotographScene scene;
        FilmScene film;
        film.spread = {30, 30, patternStrokes(Pattern::dot, 30, 30, 0), 30 * 30 * 0.04 * 0.12, 0.04, 0.25};
        film.shift = {8, 8};
        scene.film = filmThickness(film);
        scene.colour = FilmColour::grey;
        const Photograph photograph = photographOf(scene);
        const double truth = coverageMaskOf(maskOf(scene.film)).mean();
        MeasureFaceOptions options;
        options.corners = photograph.corners;
        options.film.typical = FilmAppearance{54, 0, -1, 3};
        QVERIFY_NEAR(measureFace(photograph.picture, scene.film.face, options).covered.covered, truth, 0.03);
    }
    void squeezedOutIsFound() {
        PhotographScene scene;
        FilmScene film;
        film.spread = {30, 30, patternStrokes(Pattern::dot, 30, 30, 0), 30 * 30 * 0.04 * 1.4, 0.04, 0.25};
        film.overEdge = 0.8;
        scene.film = filmThickness(film);
        scene.colour = FilmColour::pink;
        double truth = 0;
        const FilmThickness& made = scene.film;
        for (int row = 0; row < made.high(); ++row)
            for (int column = 0; column < made.wide(); ++column) {
                const bool inside = row >= made.margin && row < made.margin + made.rows
                                    && column >= made.margin && column < made.margin + made.columns;
                if (!inside && made.bondLines[static_cast<std::size_t>(row * made.wide() + column)] > 0.5F)
                    truth += made.cellMm * made.cellMm;
            }
        QVERIFY(truth > 20);
        const Photograph photograph = photographOf(scene);
        MeasureFaceOptions options;
        options.corners = photograph.corners;
        QVERIFY_REL(measureFace(photograph.picture, scene.film.face, options).film.outsideMm2, truth, 0.25);
    }
    void aFaceIsSeenFromAbove() { // corners of a known homography come back, and the scale at its middle
        const FaceCorners corners{{{100, 80}, {420, 60}, {460, 330}, {90, 300}}};
        const FaceView view(corners, {40, 30});
        const std::array<PlanePoint, 4> mm{{{0, 0}, {40, 0}, {40, 30}, {0, 30}}};
        for (std::size_t i = 0; i < 4; ++i) {
            const PlanePoint at = view.toPicture(mm[i].x, mm[i].y);
            QVERIFY_NEAR(at.x, corners[i].x, 1e-3);
            QVERIFY_NEAR(at.y, corners[i].y, 1e-3);
            QVERIFY_NEAR(view.toFace(corners[i]).x, mm[i].x, 1e-4);
        }
        const double step = 0.01;
        const PlanePoint a = view.toPicture(20, 15), b = view.toPicture(20 + step, 15),
                         c = view.toPicture(20, 15 + step);
        const double area = ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) / (step * step);
        QVERIFY_REL(view.pxPerMm(), std::sqrt(area), 1e-3);
        const FaceView straight(FaceCorners{{{10, 10}, {210, 10}, {210, 110}, {10, 110}}}, {20, 10});
        QVERIFY_NEAR(straight.pxPerMm(), 10, 1e-4);
        QVERIFY(straight.strangeness(220, 120) < 1e-6);
    }
    void cornersThatCrossAreRefused() {
        QVERIFY_THROWS_EXCEPTION(InputError, FaceView(FaceCorners{{{0, 0}, {9, 9}, {9, 0}, {0, 9}}}, {3, 3}));
        QVERIFY_THROWS_EXCEPTION(InputError, FaceView(FaceCorners{{{0, 0}, {0, 9}, {9, 9}, {9, 0}}}, {3, 3}));
        QVERIFY_THROWS_EXCEPTION(InputError,
                                 FaceView(FaceCorners{{{0, 0}, {9, 0}, {9, 9}, {0, std::nan("")}}}, {3, 3}));
        QVERIFY_THROWS_EXCEPTION(InputError, FaceView(FaceCorners{{{0, 0}, {9, 0}, {9, 9}, {0, 9}}}, {0, 3}));
    }
    void theSameSceneGivesTheSameBytes() {
        const PhotographScene scene = plainScene();
        QVERIFY(photographOf(scene).picture.rgb == photographOf(scene).picture.rgb);
    }
};

IBUKI_TEST(TestMeasuredFace)
#include "tst_measured_face.moc"
