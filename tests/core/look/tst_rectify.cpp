// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/input_error.h"
#include "core/base/random.h"
#include "core/look/bare_circle.h"
#include "core/look/rectify.h"
#include "support/near.h"
#include "support/project_files.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

/// A pinhole camera over a face: where a point of the face (mm from its upper left) falls in the picture.
struct Camera {
    double tilt = 0; ///< about the picture's horizontal, rad
    double turn = 0; ///< about the view
    double distanceMm = 200;
    double focalPx = 1500;
    double centreX = 800;
    double centreY = 600;
    Extent face{36, 30};

    PlanePoint see(double xMm, double yMm) const {
        const double x = xMm - face.widthMm / 2;
        const double y = yMm - face.lengthMm / 2;
        const double u = std::cos(turn) * x - std::sin(turn) * y;
        const double v = std::sin(turn) * x + std::cos(turn) * y;
        const double depth = distanceMm + v * std::sin(tilt);
        return {centreX + focalPx * u / depth, centreY + focalPx * v * std::cos(tilt) / depth};
    }
    FaceCorners corners() const {
        return {see(0, 0), see(face.widthMm, 0), see(face.widthMm, face.lengthMm), see(0, face.lengthMm)};
    }
};

Camera randomCamera(Random& random) {
    Camera camera;
    camera.tilt = 0.7 * random.uniform();
    camera.turn = 6.2 * random.uniform();
    camera.distanceMm = 120 + 300 * random.uniform();
    camera.face = {8 + 60 * random.uniform(), 8 + 60 * random.uniform()};
    return camera;
}

} // namespace

class TestRectify : public QObject {
    Q_OBJECT
private slots:
    void anyViewOfAFlatFaceIsTurnedBack() { // against the camera's own projection
        Random random(51);
        for (int round = 0; round < 300; ++round) {
            const Camera camera = randomCamera(random);
            const FaceView view(camera.corners(), camera.face);
            for (int i = 0; i < 20; ++i) {
                const double x = camera.face.widthMm * (1.4 * random.uniform() - 0.2);
                const double y = camera.face.lengthMm * (1.4 * random.uniform() - 0.2);
                const PlanePoint seen = camera.see(x, y);
                const PlanePoint mapped = view.toPicture(x, y);
                QVERIFY_NEAR(mapped.x, seen.x, 1e-3); // corners go in as floats: 1e-7 of 1,600 pixels
                QVERIFY_NEAR(mapped.y, seen.y, 1e-3);
                const PlanePoint back = view.toFace(seen);
                QVERIFY_NEAR(back.x, x, 1e-3);
                QVERIFY_NEAR(back.y, y, 1e-3);
            }
        }
    }
    void theScaleIsThatOfTheMiddle() {
        Camera camera; // straight from above: focal length over distance
        QVERIFY_NEAR(FaceView(camera.corners(), camera.face).pxPerMm(), 1500.0 / 200, 1e-5);
        camera.turn = 1;
        QVERIFY_NEAR(FaceView(camera.corners(), camera.face).pxPerMm(), 1500.0 / 200, 1e-5);
    }
    void aTrueViewIsNotStrangeAndAnotherSizeIs() {
        Random random(52);
        for (int round = 0; round < 100; ++round) {
            Camera camera = randomCamera(random);
            camera.face = {40, 20};
            const FaceView right(camera.corners(), camera.face);
            QVERIFY2(right.strangeness(1600, 1200) < 0.02,
                     std::to_string(right.strangeness(1600, 1200)).c_str());
        }
        const Camera straight;
        QVERIFY_NEAR(FaceView(straight.corners(), straight.face).strangeness(1600, 1200), 0, 1e-6);
    }
    void cornersThatMakeNoFaceAreRefused() {
        const Camera camera;
        const FaceCorners good = camera.corners();
        const FaceCorners crossed{good[0], good[2], good[1], good[3]};
        const FaceCorners backwards{good[0], good[3], good[2], good[1]};
        const FaceCorners point{good[0], good[0], good[0], good[0]};
        const FaceCorners line{PlanePoint{0, 0}, PlanePoint{10, 0}, PlanePoint{20, 0}, PlanePoint{30, 0}};
        FaceCorners dented = good;
        dented[2] = {(good[0].x + good[2].x) / 2 - 20, (good[0].y + good[2].y) / 2 - 20};
        for (const FaceCorners& bad : {crossed, backwards, point, line, dented})
            QCOMPARE(story::codeOf([&] { FaceView(bad, camera.face); }), QString("look-corners"));
        for (const Extent& none : {Extent{0, 30}, Extent{36, 0}, Extent{-1, 30}, Extent{std::nan(""), 30}})
            QCOMPARE(story::codeOf([&] { FaceView(good, none); }), QString("look-face"));
    }
    void thePictureIsResampledAtOneScale() { // a chequerboard of 4 mm comes back as one
        Camera camera;
        camera.tilt = 0.4;
        camera.turn = 0.3;
        RgbPicture photograph{1600, 1200, std::vector<std::uint8_t>(std::size_t{1600} * 1200 * 3, 120)};
        const FaceView view(camera.corners(), camera.face);
        for (int y = 0; y < 1200; ++y)
            for (int x = 0; x < 1600; ++x) {
                const PlanePoint at = view.toFace({x + 0.5, y + 0.5});
                if (at.x < 0 || at.y < 0 || at.x > 36 || at.y > 30) continue;
                const bool dark = (static_cast<int>(at.x / 4) + static_cast<int>(at.y / 4)) % 2 == 0;
                const std::size_t place =
                    (static_cast<std::size_t>(y) * 1600 + static_cast<std::size_t>(x)) * 3;
                for (std::size_t c = 0; c < 3; ++c) photograph.rgb[place + c] = dark ? 30 : 220;
            }
        const FacePicture face = rectified(photograph, view);
        QVERIFY_NEAR(face.faceWidth() / face.pxPerMm, 36, 1.5 / face.pxPerMm);
        QVERIFY_NEAR(face.faceHeight() / face.pxPerMm, 30, 1.5 / face.pxPerMm);
        int wrong = 0;
        int looked = 0;
        for (double xMm = 2; xMm < 36; xMm += 4) // the middles of the fields
            for (double yMm = 2; yMm < 29; yMm += 4) {
                const auto px = static_cast<std::size_t>(face.margin + xMm * face.pxPerMm);
                const auto py = static_cast<std::size_t>(face.margin + yMm * face.pxPerMm);
                const bool dark = (static_cast<int>(xMm / 4) + static_cast<int>(yMm / 4)) % 2 == 0;
                const std::uint8_t red =
                    face.picture.rgb[(py * static_cast<std::size_t>(face.picture.width) + px) * 3];
                wrong += dark != (red < 125) ? 1 : 0;
                ++looked;
            }
        QVERIFY(looked > 50);
        QCOMPARE(wrong, 0);
    }
    void whatThePhotographDoesNotReachIsSaid() {
        Camera camera;
        camera.centreX = 60; // most of the face lies left of the picture
        const RgbPicture photograph{1600, 1200, std::vector<std::uint8_t>(std::size_t{1600} * 1200 * 3, 120)};
        const FacePicture face = rectified(photograph, FaceView(camera.corners(), camera.face));
        const auto unseen = std::count(face.seen.grey.begin(), face.seen.grey.end(), 0);
        QVERIFY(unseen > static_cast<std::ptrdiff_t>(face.seen.grey.size() / 5));
        QVERIFY(outOfFrame(camera.corners(), 1600, 1200));
        QVERIFY(!outOfFrame(Camera{}.corners(), 1600, 1200));
    }
    void theLargestBareCircleTouchesWhatIsAround_data() {
        QTest::addColumn<double>("radiusMm");
        for (double radius : {2.0, 5.0, 9.5}) QTest::addRow("%.1f mm", radius) << radius;
    }
    void theLargestBareCircleTouchesWhatIsAround() {
        QFETCH(double, radiusMm);
        const Extent face{40, 30};
        GreyPicture mask{400, 300, std::vector<std::uint8_t>(std::size_t{400} * 300, maskCovered)};
        for (int y = 0; y < 300; ++y)
            for (int x = 0; x < 400; ++x)
                if (std::hypot((x + 0.5) / 10 - 17, (y + 0.5) / 10 - 14) < radiusMm)
                    mask.grey[static_cast<std::size_t>(y) * 400 + static_cast<std::size_t>(x)] = maskBare;
        QVERIFY_NEAR(largestBareCircleMm(mask, face), 2 * radiusMm, 0.25); // of pixels of 0.1 mm
    }
    void aBareFaceHoldsTheCircleOfItsShorterSide() {
        const GreyPicture bare{200, 100, std::vector<std::uint8_t>(20'000, maskBare)};
        QVERIFY_NEAR(largestBareCircleMm(bare, {40, 20}), 20, 0.21);
        QVERIFY_NEAR(largestBareCircleMm(bare, {20, 20}), 20, 0.21); // pixels that are no squares
        const GreyPicture covered{200, 100, std::vector<std::uint8_t>(20'000, maskCovered)};
        QCOMPARE(largestBareCircleMm(covered, {40, 20}), 0.0);
    }
    void theCircleIsNoSmallerThanAnyThatFits() { // second road: every centre tried, on small random masks
        Random random(53);
        for (int round = 0; round < 25; ++round) {
            const int n = 16;
            GreyPicture mask{n, n, std::vector<std::uint8_t>(static_cast<std::size_t>(n) * n, maskBare)};
            for (std::uint8_t& level : mask.grey)
                if (random.uniform() < 0.06) level = maskCovered;
            double best = 0;
            for (double x = 0.25; x < n; x += 0.25)
                for (double y = 0.25; y < n; y += 0.25) {
                    double reach = std::min({x, y, n - x, n - y});
                    for (int j = 0; j < n; ++j)
                        for (int i = 0; i < n; ++i) {
                            if (mask.grey[static_cast<std::size_t>(j) * n + static_cast<std::size_t>(i)]
                                < maskFromHere)
                                continue;
                            const double dx = std::max({i - x, 0.0, x - (i + 1)});
                            const double dy = std::max({j - y, 0.0, y - (j + 1)});
                            reach = std::min(reach, std::hypot(dx, dy));
                        }
                    best = std::max(best, 2 * reach);
                }
            const double found = largestBareCircleMm(mask, {static_cast<double>(n), static_cast<double>(n)});
            QVERIFY2(found >= best - 1e-3 && found <= best + 0.75,
                     qPrintable(QString("%1 %2").arg(found).arg(best)));
        }
    }
};

IBUKI_TEST(TestRectify)
#include "tst_rectify.moc"
