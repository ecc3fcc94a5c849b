// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/photograph.h"

#include "core/base/random.h"
#include "core/look/mats.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

constexpr double degree = 3.14159265358979324 / 180;
constexpr double around = 3; // the drawn plane reaches so many longer sides

cv::Scalar colourOf(FilmColour colour) {
    switch (colour) {
    case FilmColour::white:
        return {0.90, 0.90, 0.88};
    case FilmColour::grey:
        return {0.50, 0.51, 0.52};
    case FilmColour::dark:
        return {0.21, 0.21, 0.22};
    case FilmColour::blue:
        return {0.30, 0.45, 0.68};
    case FilmColour::pink:
        break;
    }
    return {0.82, 0.52, 0.60};
}

cv::Scalar surfaceColour(const PhotographScene& scene) {
    if (scene.surface == FaceSurface::bareDie) return {0.17, 0.18, 0.22};
    if (scene.surface == FaceSurface::plate && scene.copper) return {0.72, 0.46, 0.33};
    return {0.67, 0.67, 0.65};
}

/// The plane of the face as it is, before light and camera: middle of the face in the middle.
class Plane {
public:
    Plane(const PhotographScene& scene, Random& random)
        : scene_(scene),
          random_(random),
          longer_(std::max(scene.film.face.widthMm, scene.film.face.lengthMm)),
          pxPerMm_(1.25 * scene.fill * std::min(scene.width, scene.height) / longer_) {
        const int side = static_cast<int>(around * longer_ * pxPerMm_);
        picture_ = cv::Mat(side, side, CV_32FC3, cv::Scalar(0.13 + 0.1 * random.uniform(), 0.25, 0.19));
        drawClutter();
        drawFace();
        drawFilm();
    }

    const cv::Mat& picture() const { return picture_; }
    double pxPerMm() const { return pxPerMm_; }
    /// Where the face's upper left lies.
    PlanePoint begin() const {
        return {picture_.cols / 2.0 - scene_.film.face.widthMm * pxPerMm_ / 2,
                picture_.rows / 2.0 - scene_.film.face.lengthMm * pxPerMm_ / 2};
    }

private:
    cv::Rect centred(double widthMm, double lengthMm) const {
        const int width = static_cast<int>(std::lround(widthMm * pxPerMm_));
        const int height = static_cast<int>(std::lround(lengthMm * pxPerMm_));
        return {static_cast<int>(std::lround(picture_.cols / 2.0 - width / 2.0)),
                static_cast<int>(std::lround(picture_.rows / 2.0 - height / 2.0)), width, height};
    }
    cv::Scalar anyColour() {
        const double grey = 0.1 + 0.6 * random_.uniform();
        return {grey * (0.7 + 0.3 * random_.uniform()), grey * (0.7 + 0.3 * random_.uniform()), grey};
    }

    void drawClutter() {
        const auto anywhere = [&] {
            return cv::Point(static_cast<int>(random_.uniform() * picture_.cols),
                             static_cast<int>(random_.uniform() * picture_.rows));
        };
        for (int i = 0; i < 2 * scene_.clutter; ++i)
            cv::line(picture_, anywhere(), anywhere(), anyColour() * 0.6,
                     1 + static_cast<int>(random_.uniform() * 2), cv::LINE_AA);
        const double unit = longer_ * pxPerMm_;
        for (int i = 0; i < scene_.clutter; ++i) {
            const cv::Point at = anywhere();
            if (random_.uniform() < 0.4)
                cv::circle(picture_, at, static_cast<int>(unit * (0.03 + 0.1 * random_.uniform())),
                           anyColour(), cv::FILLED, cv::LINE_AA);
            else
                cv::rectangle(picture_,
                              {at.x, at.y, static_cast<int>(unit * (0.05 + 0.25 * random_.uniform())),
                               static_cast<int>(unit * (0.05 + 0.25 * random_.uniform()))},
                              anyColour(), cv::FILLED);
        }
        if (!scene_.carrier) return;
        const double more = longer_ * (0.25 + 0.3 * random_.uniform());
        cv::rectangle(picture_, centred(scene_.film.face.widthMm + more, scene_.film.face.lengthMm + more),
                      cv::Scalar(0.09, 0.2 + 0.08 * random_.uniform(), 0.13), cv::FILLED);
    }

    void drawFace() {
        const cv::Rect face = centred(scene_.film.face.widthMm, scene_.film.face.lengthMm);
        cv::rectangle(picture_,
                      {face.x - 2, face.y - 2, face.width + 5, face.height + 6}, // the shadow of its edge
                      cv::Scalar(0.06, 0.08, 0.07), cv::FILLED);
        cv::rectangle(picture_, face, surfaceColour(scene_), cv::FILLED);
        if (!(scene_.brushed > 0)) return;
        cv::Mat grain(face.height, 1, CV_32F);
        for (int row = 0; row < grain.rows; ++row)
            grain.at<float>(row, 0) = static_cast<float>(scene_.brushed * random_.normal());
        for (int row = 0; row < face.height; ++row)
            picture_.row(face.y + row).colRange(face.x, face.x + face.width) *= 1 + grain.at<float>(row, 0);
    }

    void drawFilm() {
        const FilmThickness& film = scene_.film;
        const cv::Mat cells(film.high(), film.wide(), CV_32F, const_cast<float*>(film.bondLines.data()));
        const double marginMm = film.margin * film.cellMm;
        const cv::Rect where = centred(film.face.widthMm + 2 * marginMm, film.face.lengthMm + 2 * marginMm);
        cv::Mat thick, dx, dy;
        cv::resize(cells, thick, where.size(), 0, 0, cv::INTER_CUBIC);
        cv::Sobel(thick, dx, CV_32F, 1, 0, 3, 0.125);
        cv::Sobel(thick, dy, CV_32F, 0, 1, 3, 0.125);
        const cv::Mat shade = (dx + dy) * 0.9; // a rim that faces the light is brighter
        const cv::Scalar paste = colourOf(scene_.colour);
        for (int row = 0; row < where.height; ++row) {
            if (where.y + row < 0 || where.y + row >= picture_.rows) continue;
            for (int column = 0; column < where.width; ++column) {
                if (where.x + column < 0 || where.x + column >= picture_.cols) continue;
                const double opaque = std::clamp(static_cast<double>(thick.at<float>(row, column)), 0.0, 1.0);
                if (opaque <= 0) continue;
                auto& pixel = picture_.at<cv::Vec3f>(where.y + row, where.x + column);
                const double lit =
                    1 - std::clamp(static_cast<double>(shade.at<float>(row, column)), -0.12, 0.12);
                for (int c = 0; c < 3; ++c)
                    pixel[c] = static_cast<float>((1 - opaque) * pixel[c] + opaque * paste[c] * lit);
            }
        }
    }

    const PhotographScene& scene_;
    Random& random_;
    double longer_;
    double pxPerMm_;
    cv::Mat picture_;
};

/// From millimetres on the face's plane (from its middle, down positive) to pixels, by a pinhole camera.
cv::Matx33d camera(const PhotographScene& scene) {
    const double longer = std::max(scene.film.face.widthMm, scene.film.face.lengthMm);
    const double focal = 1.1 * std::max(scene.width, scene.height);
    const double distance = focal * longer / (scene.fill * std::min(scene.width, scene.height));
    const auto turn = [](double angle) {
        return cv::Matx33d(std::cos(angle), -std::sin(angle), 0, std::sin(angle), std::cos(angle), 0, 0, 0,
                           1);
    };
    const double tilt = scene.tiltDeg * degree, azimuth = scene.azimuthDeg * degree;
    const cv::Matx33d lean(1, 0, 0, 0, std::cos(tilt), -std::sin(tilt), 0, std::sin(tilt), std::cos(tilt));
    const cv::Matx33d rotation = turn(azimuth) * lean * turn(scene.rollDeg * degree - azimuth);
    const cv::Matx33d look(focal, 0, scene.width / 2.0, 0, focal, scene.height / 2.0, 0, 0, 1);
    cv::Matx33d pose = rotation;
    for (int row = 0; row < 3; ++row) pose(row, 2) = row == 2 ? distance : 0;
    return look * pose;
}

PlanePoint through(const cv::Matx33d& map, double x, double y) {
    const cv::Vec3d at = map * cv::Vec3d(x, y, 1);
    return {at[0] / at[2], at[1] / at[2]};
}

void lightUp(cv::Mat& picture, const PhotographScene& scene, const cv::Matx33d& map) {
    const double longer = std::max(scene.film.face.widthMm, scene.film.face.lengthMm);
    const PlanePoint middle = through(map, 0, 0);
    const double reach = 0.5 * scene.fill * std::min(scene.width, scene.height);
    const double cosine = std::cos(scene.lightAngleDeg * degree),
                 sine = std::sin(scene.lightAngleDeg * degree);
    const PlanePoint glare = through(map, scene.glareAt.x * longer, -scene.glareAt.y * longer);
    for (int row = 0; row < picture.rows; ++row)
        for (int column = 0; column < picture.cols; ++column) {
            const double x = (column - middle.x) / reach, y = (row - middle.y) / reach;
            const double along = std::clamp(x * cosine + y * sine, -1.6, 1.6);
            const double light = std::exp(-scene.lightSlope * along - scene.vignette * (x * x + y * y) / 2);
            auto& pixel = picture.at<cv::Vec3f>(row, column);
            pixel *= static_cast<float>(light);
            if (!(scene.glare > 0)) continue;
            const double away = std::hypot(column - glare.x, row - glare.y) / (scene.glare * 2 * reach);
            const auto white = static_cast<float>(1.1 / (1 + std::exp((away - 1) * 14)));
            for (int c = 0; c < 3; ++c) pixel[c] = pixel[c] * (1 - std::min(1.0F, white)) + white;
        }
}

} // namespace

Photograph photographOf(const PhotographScene& scene) {
    Random random(scene.seed);
    const Plane plane(scene, random);
    const cv::Matx33d map = camera(scene);
    const double px = plane.pxPerMm();
    const cv::Matx33d toMm(1 / px, 0, (0.5 - plane.picture().cols / 2.0) / px, 0, 1 / px,
                           (0.5 - plane.picture().rows / 2.0) / px, 0, 0, 1);
    const cv::Matx33d toMiddles(1, 0, -0.5, 0, 1, -0.5, 0, 0, 1);
    cv::Mat seen;
    cv::warpPerspective(plane.picture(), seen, toMiddles * map * toMm, {scene.width, scene.height},
                        cv::INTER_AREA, cv::BORDER_REFLECT);
    lightUp(seen, scene, map);
    if (scene.blurPx > 0) cv::GaussianBlur(seen, seen, {}, scene.blurPx * scene.width / 1000.0);
    Photograph made;
    cv::Mat levels(seen.size(), CV_8UC3);
    for (int row = 0; row < seen.rows; ++row)
        for (int column = 0; column < seen.cols; ++column)
            for (int c = 0; c < 3; ++c)
                levels.at<cv::Vec3b>(row, column)[c] = cv::saturate_cast<std::uint8_t>(
                    255 * static_cast<double>(seen.at<cv::Vec3f>(row, column)[c])
                    + scene.noise * random.normal());
    made.picture = rgbOf(levels);
    const double w = scene.film.face.widthMm / 2, l = scene.film.face.lengthMm / 2;
    made.corners = {through(map, -w, -l), through(map, w, -l), through(map, w, l), through(map, -w, l)};
    return made;
}

} // namespace ibuki
