// SPDX-License-Identifier: GPL-3.0-or-later
// Sides of a face from its edges: polygons with known corners are drawn and looked for.

#include "core/base/random.h"
#include "core/look/edge_quads.h"
#include "core/look/rectify.h"
#include "core/look/side_settling.h"
#include "support/near.h"
#include "support/test_class.h"

#include <opencv2/imgproc.hpp>

using namespace ibuki;

namespace {

constexpr Extent face{40, 30};

/// A view of the face: its corners after a small turn and a tilt, in the picture's pixels.
FaceCorners viewOf(Random& random) {
    const double turn = 0.3 * (random.uniform() - 0.5), tilt = 0.08 * (random.uniform() - 0.5), scale = 5.5;
    const double cx = 180 + 10 * random.uniform(), cy = 140 + 10 * random.uniform();
    FaceCorners corners;
    const double signs[4][2] = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}}; // clockwise from the upper left
    for (std::size_t i = 0; i < 4; ++i) {
        const double x = signs[i][0] * face.widthMm / 2, y = signs[i][1] * face.lengthMm / 2;
        const double rx = std::cos(turn) * x - std::sin(turn) * y,
                     ry = std::sin(turn) * x + std::cos(turn) * y;
        const double depth = 1 + tilt * ry / face.lengthMm;
        corners[i] = {cx + scale * rx / depth, cy + scale * ry / depth};
    }
    return corners;
}

/// Light face on a dark board, drawn four times as large and made smaller, with noise of a camera.
cv::Mat pictureOf(const FaceCorners& corners, Random& random) {
    constexpr int width = 360, height = 290, fine = 4;
    cv::Mat large(height * fine, width * fine, CV_8UC3, cv::Scalar(60, 66, 58));
    std::vector<cv::Point> points;
    for (const PlanePoint& corner : corners) // the middle of a picture's first pixel is at 0.5
        points.emplace_back(static_cast<int>(std::lround(corner.x * fine - 0.5)),
                            static_cast<int>(std::lround(corner.y * fine - 0.5)));
    cv::fillConvexPoly(large, points, cv::Scalar(170, 172, 178));
    cv::Mat small;
    cv::resize(large, small, {width, height}, 0, 0, cv::INTER_AREA);
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            for (int c = 0; c < 3; ++c) {
                std::uint8_t& value = small.at<cv::Vec3b>(y, x)[c];
                value = cv::saturate_cast<std::uint8_t>(value + 2.5 * random.normal());
            }
    return labOf(small);
}

double farthest(const FaceCorners& a, const FaceCorners& b) {
    double most = 0;
    for (std::size_t i = 0; i < 4; ++i) most = std::max(most, std::hypot(a[i].x - b[i].x, a[i].y - b[i].y));
    return most;
}

} // namespace

class TestEdgeQuads : public QObject {
    Q_OBJECT

private slots:
    void areaHasASign() { // by the shoelace formula; clockwise as a picture shows it
        QCOMPARE(areaOf({{{0, 0}, {4, 0}, {4, 3}, {0, 3}}}), 12.0);
        QCOMPARE(areaOf({{{0, 0}, {0, 3}, {4, 3}, {4, 0}}}), -12.0);
        Random random(61);
        for (int trial = 0; trial < 50; ++trial) {
            FaceCorners corners;
            for (PlanePoint& corner : corners) corner = {100 * random.uniform(), 100 * random.uniform()};
            double twice = 0;
            for (std::size_t i = 0; i < 4; ++i) {
                const PlanePoint& a = corners[i];
                const PlanePoint& b = corners[(i + 1) % 4];
                twice += a.x * b.y - b.x * a.y;
            }
            QVERIFY_NEAR(areaOf(corners), twice / 2, 1e-9);
        }
    }
    void linesMeetWhereBothHold() {
        Random random(62);
        for (int trial = 0; trial < 100; ++trial) {
            const double s = 6.28 * random.uniform(), t = 6.28 * random.uniform();
            const EdgeLine a{std::cos(s), std::sin(s), 50 * random.normal(), 1};
            const EdgeLine b{std::cos(t), std::sin(t), 50 * random.normal(), 1};
            PlanePoint at;
            if (!meet(a, b, at)) {
                QVERIFY(std::abs(std::sin(s - t)) < 0.1);
                continue;
            }
            const double reach = 1e-9 * (1 + std::hypot(at.x, at.y));
            QVERIFY_NEAR(a.nx * at.x + a.ny * at.y, a.offset, reach);
            QVERIFY_NEAR(b.nx * at.x + b.ny * at.y, b.offset, reach);
        }
        PlanePoint at;
        QVERIFY(!meet({1, 0, 3, 1}, {1, 0, 5, 1}, at));
    }
    void anEdgeIsSeenAcrossAndNotAlong() {
        cv::Mat rgb(60, 80, CV_8UC3, cv::Scalar(40, 40, 40));
        rgb.colRange(40, 80).setTo(cv::Scalar(200, 200, 200));
        const EdgeField field(labOf(rgb));
        QVERIFY(field.across(39.5, 30, 1, 0) > 20 * field.across(39.5, 30, 0, 1));
        QVERIFY(field.across(39.5, 30, 1, 0) > 20 * field.across(10, 30, 1, 0));
        QCOMPARE(field.across(-5, 30, 1, 0), 0.0);
        QCOMPARE(field.across(39.5, 600, 1, 0), 0.0);
        QCOMPARE(field.width(), 80);
        QCOMPARE(field.height(), 60);
    }
    void drawnFacesAreFound() { // to 1.5 px of corners, 5.5 px a millimetre
        Random random(63);
        for (int trial = 0; trial < 8; ++trial) {
            const FaceCorners corners = viewOf(random);
            const cv::Mat lab = pictureOf(corners, random);
            const auto quads = edgeQuads(EdgeField(lab), face, straightLines(lab, 40), ViewTrust{});
            QVERIFY(!quads.empty());
            QVERIFY2(farthest(quads.front().corners, corners) < 1.5,
                     qPrintable(QString::number(farthest(quads.front().corners, corners))));
            QVERIFY(quads.front().support > 0.9);
            for (std::size_t i = 1; i < quads.size(); ++i) QVERIFY(quads[i].worth <= quads[i - 1].worth);
        }
    }
    void sidesSettleFromNearbyAndAreThenLaidExactly() { // where most of a side is an edge, then along it
        Random random(64);
        for (int trial = 0; trial < 8; ++trial) {
            const FaceCorners corners = viewOf(random);
            const EdgeField field(pictureOf(corners, random));
            FaceCorners beside = corners;
            for (PlanePoint& corner : beside) {
                corner.x += 8 * (random.uniform() - 0.5);
                corner.y += 8 * (random.uniform() - 0.5);
            }
            const SettledSides settled = settledSides(field, face, beside, ViewTrust{});
            const FaceCorners laid = laidSides(field, settled.corners, 6);
            QVERIFY2(farthest(laid, corners) < 0.5, qPrintable(QString::number(farthest(laid, corners))));
            QVERIFY(settled.worth > 3);
        }
    }
    void sidesAreLaidToHalfAPixel() {
        Random random(65);
        for (int trial = 0; trial < 8; ++trial) {
            const FaceCorners corners = viewOf(random);
            const EdgeField field(pictureOf(corners, random));
            FaceCorners beside = corners;
            for (PlanePoint& corner : beside) {
                corner.x += 3 * (random.uniform() - 0.5);
                corner.y += 3 * (random.uniform() - 0.5);
            }
            const FaceCorners laid = laidSides(field, beside, 6);
            QVERIFY2(farthest(laid, corners) < 0.5, qPrintable(QString::number(farthest(laid, corners))));
        }
    }
    void whereThereIsNoEdgeNothingIsSeen() {
        Random random(66);
        cv::Mat grey(290, 360, CV_8UC3, cv::Scalar(90, 90, 90));
        for (int y = 0; y < grey.rows; ++y)
            for (int x = 0; x < grey.cols; ++x)
                for (int c = 0; c < 3; ++c)
                    grey.at<cv::Vec3b>(y, x)[c] = cv::saturate_cast<std::uint8_t>(90 + 2.5 * random.normal());
        const cv::Mat lab = labOf(grey);
        const EdgeField field(lab);
        const FaceCorners somewhere = viewOf(random);
        QVERIFY(seenShare(field, somewhere) < 0.6);
        for (const EdgeQuad& quad : edgeQuads(field, face, straightLines(lab, 40), ViewTrust{}))
            QVERIFY(quad.support < 0.9);
    }
};

IBUKI_TEST(TestEdgeQuads)
#include "tst_edge_quads.moc"
