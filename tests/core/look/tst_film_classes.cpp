// SPDX-License-Identifier: GPL-3.0-or-later
// Two kinds of place under uneven light: pictures drawn from the very model, of which kinds, light and every
// place are known.

#include "core/base/random.h"
#include "core/look/film_classes.h"
#include "support/near.h"
#include "support/test_class.h"

using namespace ibuki;

namespace {

constexpr int side = 60;

struct Drawn {
    cv::Mat logRgb = cv::Mat(side, side, CV_32FC3);
    cv::Mat counted = cv::Mat(side, side, CV_8U, cv::Scalar(1));
    cv::Mat truth = cv::Mat(side, side, CV_8U, cv::Scalar(0));
    double share = 0; ///< of the second kind
};

/// A disc of another colour under a tilted light, with noise of the logarithms.
Drawn drawn(Random& random, double radius, double tilt, double noise, const cv::Vec3f& between) {
    Drawn picture;
    int covered = 0;
    for (int row = 0; row < side; ++row)
        for (int column = 0; column < side; ++column) {
            const bool disc = std::hypot(column - side * 0.45, row - side * 0.55) < radius;
            const double x = 2 * (column + 0.5) / side - 1, y = 2 * (row + 0.5) / side - 1;
            const auto light = static_cast<float>(tilt * x - 0.5 * tilt * y + 0.3 * tilt * x * y);
            cv::Vec3f colour(-1.2F, -1.1F, -1.0F);
            if (disc) colour += between;
            for (int c = 0; c < 3; ++c) colour[c] += light + static_cast<float>(noise * random.normal());
            picture.logRgb.at<cv::Vec3f>(row, column) = colour;
            picture.truth.at<std::uint8_t>(row, column) = disc ? 1 : 0;
            covered += disc ? 1 : 0;
        }
    picture.share = static_cast<double>(covered) / (side * side);
    return picture;
}

/// Share of places put with the right kind; which of the two is called the second does not matter.
double rightShare(const Drawn& picture, const FilmClasses& found) {
    int right = 0, counted = 0;
    for (int row = 0; row < side; ++row)
        for (int column = 0; column < side; ++column) {
            if (!picture.counted.at<std::uint8_t>(row, column)) continue;
            ++counted;
            right += (found.second.at<float>(row, column) > 0.5F)
                     == (picture.truth.at<std::uint8_t>(row, column) == 1);
        }
    const double share = static_cast<double>(right) / counted;
    return std::max(share, 1 - share);
}

} // namespace

class TestFilmClasses : public QObject {
    Q_OBJECT

private slots:
    void everyPlaceIsPutWithItsKind_data() {
        QTest::addColumn<double>("radius");
        QTest::addColumn<double>("tilt");
        QTest::newRow("half, even light") << 24.0 << 0.0;
        QTest::newRow("half, tilted light") << 24.0 << 0.25;
        QTest::newRow("a tenth, tilted light") << 11.0 << 0.25;
        QTest::newRow("a tenth, strong light") << 11.0 << 0.5;
        QTest::newRow("nine tenths") << 33.0 << 0.2;
    }
    void everyPlaceIsPutWithItsKind() {
        QFETCH(double, radius);
        QFETCH(double, tilt);
        Random random(51);
        for (int trial = 0; trial < 4; ++trial) {
            const Drawn picture = drawn(random, radius, tilt, 0.03, {0.35F, 0.30F, 0.28F});
            const FilmClasses found = filmClasses(picture.logRgb, picture.counted);
            QVERIFY2(rightShare(picture, found) > 0.995,
                     qPrintable(QString::number(rightShare(picture, found))));
            const double second = found.kinds[1].share;
            QVERIFY_NEAR(std::min(second, 1 - second), std::min(picture.share, 1 - picture.share), 0.02);
            QVERIFY_NEAR(found.kinds[0].share + found.kinds[1].share, 1, 1e-9);
        }
    }
    void theLightIsThatOfThePicture() { // its differences: a constant goes to the kinds
        Random random(52);
        const double tilt = 0.3;
        const Drawn picture = drawn(random, 20, tilt, 0.03, {0.4F, 0.3F, 0.2F});
        const FilmClasses found = filmClasses(picture.logRgb, picture.counted);
        const auto truth = [&](double x, double y) { return tilt * x - 0.5 * tilt * y + 0.3 * tilt * x * y; };
        for (const double x : {-0.9, 0.0, 0.9})
            for (const double y : {-0.9, 0.0, 0.9})
                QVERIFY_NEAR(found.light.at(x, y) - found.light.at(0, 0), truth(x, y) - truth(0, 0), 0.02);
        QCOMPARE(found.light.at(7, -9), found.light.at(1, -1)); // beyond the face as at its edge
    }
    void theKindsDifferAsTheyWereDrawn() {
        Random random(53);
        const cv::Vec3f between(0.35F, 0.1F, -0.2F);
        const Drawn picture = drawn(random, 22, 0.2, 0.02, between);
        const FilmClasses found = filmClasses(picture.logRgb, picture.counted);
        const cv::Vec3d apart = found.kinds[1].logRgb - found.kinds[0].logRgb;
        const double sign = apart[0] > 0 ? 1 : -1;
        for (int c = 0; c < 3; ++c) QVERIFY_NEAR(sign * apart[c], between[c], 0.02);
    }
    void placesThatSayNothingAreNotAsked() { // glare of any brightness changes nothing but where it lies
        Random random(54);
        Drawn picture = drawn(random, 22, 0.2, 0.03, {0.35F, 0.30F, 0.28F});
        for (int row = 5; row < 15; ++row)
            for (int column = 30; column < 45; ++column) {
                picture.logRgb.at<cv::Vec3f>(row, column) = {4, 4, 4};
                picture.counted.at<std::uint8_t>(row, column) = 0;
            }
        const FilmClasses found = filmClasses(picture.logRgb, picture.counted);
        QVERIFY(rightShare(picture, found) > 0.995);
        for (const FilmKind& kind : found.kinds) QVERIFY(kind.logRgb[0] < 0);
    }
    void moreOrLessLightIsNoOtherPicture() { // twice the exposure
        Random random(55);
        const Drawn picture = drawn(random, 18, 0.2, 0.03, {0.35F, 0.30F, 0.28F});
        Drawn brighter = picture;
        brighter.logRgb = cv::Mat(picture.logRgb + cv::Scalar::all(std::log(2.0))); // memory of its own
        const FilmClasses a = filmClasses(picture.logRgb, picture.counted);
        const FilmClasses b = filmClasses(brighter.logRgb, brighter.counted);
        QVERIFY(cv::norm(a.second, b.second, cv::NORM_INF) < 0.01);
        QVERIFY_NEAR(b.kinds[0].logRgb[1] - a.kinds[0].logRgb[1], std::log(2.0), 1e-3);
    }
    void nothingThatCannotBeToldBreaksIt() {
        const cv::Mat even(side, side, CV_32FC3, cv::Scalar(-1, -1, -1));
        const cv::Mat all(side, side, CV_8U, cv::Scalar(1)), none(side, side, CV_8U, cv::Scalar(0));
        cv::Mat one = none.clone();
        one.at<std::uint8_t>(3, 3) = 1;
        for (const cv::Mat& counted : {all, one, none}) {
            const FilmClasses found = filmClasses(even, counted);
            QVERIFY(cv::checkRange(found.second));
            QVERIFY(std::isfinite(found.light.at(0.3, 0.3)));
        }
    }
};

IBUKI_TEST(TestFilmClasses)
#include "tst_film_classes.moc"
