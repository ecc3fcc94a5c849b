// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/simulate/film_thickness.h"

#include "core/base/random.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace ibuki {
namespace {

/// Noise of mean 0 and deviation 1 that changes over about `reach` cells.
cv::Mat wander(Random& random, int rows, int columns, double reach) {
    const int coarseRows = static_cast<int>(rows / reach) + 4,
              coarseColumns = static_cast<int>(columns / reach) + 4;
    cv::Mat coarse(coarseRows, coarseColumns, CV_32F);
    for (int row = 0; row < coarseRows; ++row)
        for (int column = 0; column < coarseColumns; ++column)
            coarse.at<float>(row, column) = static_cast<float>(random.normal());
    cv::Mat fine;
    cv::resize(coarse, fine, {columns, rows}, 0, 0, cv::INTER_CUBIC);
    return fine;
}

/// How far inside the paste's edge each place lies, mm.
cv::Mat insideOf(const FilmScene& scene, const FilmThickness& film, Random& random) {
    const double longer = std::max(film.face.widthMm, film.face.lengthMm);
    const double reach = scene.spread.strokes.empty() ? 0 : spread(scene.spread).offsetMm;
    cv::Mat inside = wander(random, film.high(), film.wide(), 0.12 * longer / film.cellMm)
                     + 0.35 * wander(random, film.high(), film.wide(), 0.03 * longer / film.cellMm);
    inside *= 0.5 * scene.ragged * longer;
    for (int row = 0; row < inside.rows; ++row)
        for (int column = 0; column < inside.cols; ++column) {
            const double x =
                (column - film.margin + 0.5) * film.cellMm - film.face.widthMm / 2 - scene.shift.x;
            const double y = film.face.lengthMm / 2 - (row - film.margin + 0.5) * film.cellMm - scene.shift.y;
            double within = reach - strokeDistanceMm({x, y}, scene.spread.strokes);
            if (scene.spread.strokes.empty()) // a film laid before: to within a rim of the edge
                within = std::min(film.face.widthMm / 2 - std::abs(x), film.face.lengthMm / 2 - std::abs(y));
            const double beyond =
                std::hypot(std::max(0.0, std::abs(x + scene.shift.x) - film.face.widthMm / 2),
                           std::max(0.0, std::abs(y + scene.shift.y) - film.face.lengthMm / 2));
            within -= (4 + 26 * (1 - scene.overEdge)) * beyond; // what comes over the edge stays near it
            const double lean = (x * std::cos(scene.tiltAngle) + y * std::sin(scene.tiltAngle)) / longer;
            inside.at<float>(row, column) += static_cast<float>(within - scene.tilt * longer * (lean + 0.2));
        }
    return inside;
}

} // namespace

FilmThickness filmThickness(const FilmScene& scene) {
    Random random(scene.seed);
    FilmThickness film;
    film.face = {scene.spread.widthMm, scene.spread.lengthMm};
    const double longer = std::max(film.face.widthMm, film.face.lengthMm);
    const double cell = scene.cellMm > 0 ? scene.cellMm : longer / 240;
    film.columns = std::max(1, static_cast<int>(std::lround(film.face.widthMm / cell)));
    film.rows = std::max(1, static_cast<int>(std::lround(film.face.lengthMm / cell)));
    film.cellMm = film.face.widthMm / film.columns;
    film.margin = static_cast<int>(std::lround(0.2 * longer / film.cellMm));
    const cv::Mat inside = insideOf(scene, film, random);
    cv::Mat thick = inside / (0.02 * longer) + 0.5; // it thins out over a fiftieth of the face
    thick = cv::min(cv::max(thick, 0.0), 1.0);
    for (int bubble = 0; bubble < scene.bubbles; ++bubble) {
        const cv::Point at(static_cast<int>(film.margin + random.uniform() * film.columns),
                           static_cast<int>(film.margin + random.uniform() * film.rows));
        const double radius = (0.015 + 0.035 * random.uniform()) * longer / film.cellMm;
        cv::circle(thick, at, std::max(1, static_cast<int>(radius)), cv::Scalar(0.02), cv::FILLED,
                   cv::LINE_AA);
    }
    if (scene.smear > 0) {
        const cv::Mat where = wander(random, film.high(), film.wide(), 0.1 * longer / film.cellMm);
        const double least = 1.4 - 2.2 * scene.smear;
        cv::Mat smeared = cv::min(cv::max((where - least) * 1.5, 0.0), 1.0) * (0.15 + 0.2 * random.uniform());
        smeared.setTo(0, inside < -0.25 * longer);
        thick = cv::max(thick, smeared);
    }
    film.bondLines.assign(thick.begin<float>(), thick.end<float>());
    return film;
}

GreyPicture maskOf(const FilmThickness& film) {
    GreyPicture mask{film.columns, film.rows, {}};
    mask.grey.reserve(static_cast<std::size_t>(film.columns) * static_cast<std::size_t>(film.rows));
    for (int row = 0; row < film.rows; ++row)
        for (int column = 0; column < film.columns; ++column) {
            const auto at =
                static_cast<std::size_t>(row + film.margin) * static_cast<std::size_t>(film.wide())
                + static_cast<std::size_t>(column + film.margin);
            mask.grey.push_back(film.bondLines[at] > 0.5F ? maskCovered : maskBare);
        }
    return mask;
}

} // namespace ibuki
